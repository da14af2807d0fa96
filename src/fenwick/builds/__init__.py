"""What was done of a build: steps, figures as they were cut, things got, clocks; a document of its own."""
