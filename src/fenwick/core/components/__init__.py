"""What a woodworker owns, as frozen dataclasses: site, vacuum, dust, hoses, separators, ports."""
