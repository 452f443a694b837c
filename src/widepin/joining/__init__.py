"""Open standards by which other systems of a school talk with this one; nothing of the school itself is known here.

``lti`` learning platforms, ``standins`` small systems that speak the standards for real, for the demo and for tests.
"""
