"""Learning platforms by LTI 1.3 with Advantage, this program being the tool.

``launches`` reads the messages of a platform, ``services`` asks it for members and sends scores, ``deep_linking`` hands
tasks over, ``registering`` makes it known to a platform that registers tools by itself.
Source: 1EdTech, LTI Core 1.3, Security Framework 1.0, Deep Linking 2.0, NRPS 2.0, AGS 2.0, Dynamic Registration 1.0.
"""
