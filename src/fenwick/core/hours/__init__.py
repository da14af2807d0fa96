"""A line over hours of work: filters that load up, jobs of a week, the air of the room."""
