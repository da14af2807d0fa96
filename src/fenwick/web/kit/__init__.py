"""What the places share: the database of a request, fields, units, the header, errors, security, jobs."""
