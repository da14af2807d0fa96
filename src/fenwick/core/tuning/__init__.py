"""Fitting the model to readings: which factors they fix, and which reading would fix more."""
