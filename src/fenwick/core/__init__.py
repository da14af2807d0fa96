"""The interface-free computation core; see the README beside this file."""
