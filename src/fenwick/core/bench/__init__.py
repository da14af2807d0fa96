"""What is done at the bench with the model: tests judged, faults hunted."""
