"""What the standard calls things: names of claims, scopes, roles and types."""

from __future__ import annotations

CLAIM = "https://purl.imsglobal.org/spec/lti/claim/"
MESSAGE_TYPE = CLAIM + "message_type"
VERSION = CLAIM + "version"
DEPLOYMENT = CLAIM + "deployment_id"
TARGET = CLAIM + "target_link_uri"
LINK = CLAIM + "resource_link"
ROLES = CLAIM + "roles"
CONTEXT = CLAIM + "context"
CUSTOM = CLAIM + "custom"
MEMBERS = "https://purl.imsglobal.org/spec/lti-nrps/claim/namesroleservice"
GRADES = "https://purl.imsglobal.org/spec/lti-ags/claim/endpoint"
SETTINGS = "https://purl.imsglobal.org/spec/lti-dl/claim/deep_linking_settings"
ITEMS = "https://purl.imsglobal.org/spec/lti-dl/claim/content_items"
DATA = "https://purl.imsglobal.org/spec/lti-dl/claim/data"

LAUNCH, CHOOSING, CHOSEN = "LtiResourceLinkRequest", "LtiDeepLinkingRequest", "LtiDeepLinkingResponse"

READ_MEMBERS = "https://purl.imsglobal.org/spec/lti-nrps/scope/contextmembership.readonly"
LINE_ITEMS = "https://purl.imsglobal.org/spec/lti-ags/scope/lineitem"
SCORES = "https://purl.imsglobal.org/spec/lti-ags/scope/score"
SCOPES = (READ_MEMBERS, LINE_ITEMS, SCORES)

MEMBERS_TYPE = "application/vnd.ims.lti-nrps.v2.membershipcontainer+json"
LINE_ITEM_TYPE = "application/vnd.ims.lis.v2.lineitem+json"
SCORE_TYPE = "application/vnd.ims.lis.v1.score+json"

MEMBERSHIP = "http://purl.imsglobal.org/vocab/lis/v2/membership"
TEACHES = ("Instructor", "TeachingAssistant", "ContentDeveloper")
"""Roles in a course, and their sub-roles, of who teaches in it."""


def role_in_course(role: str) -> str:
    """The core role that a role in a course is, or is a sub-role of: Learner; "" for one that is of no course.

    >>> role_in_course("http://purl.imsglobal.org/vocab/lis/v2/membership#Learner"), role_in_course("Instructor")
    ('Learner', 'Instructor')
    >>> role_in_course("http://purl.imsglobal.org/vocab/lis/v2/membership/Instructor#TeachingAssistant")
    'Instructor'
    >>> role_in_course("http://purl.imsglobal.org/vocab/lis/v2/institution/person#Student")
    ''
    """
    if "/" not in role and "#" not in role:
        return role  # the short form that the standard allows for roles in a course
    space, _hash, name = role.partition("#")
    if space == MEMBERSHIP:
        return name
    return space.removeprefix(MEMBERSHIP + "/") if space.startswith(MEMBERSHIP + "/") else ""
