"""What a telephone measures: readings off a photo or a recording, each with its uncertainty, or why there is none."""
