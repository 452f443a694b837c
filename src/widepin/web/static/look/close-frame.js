// Tells the platform that opened this page in a frame or window that it is done. Source: LTI Dynamic Registration 1.0.

(window.opener ?? window.parent).postMessage({ subject: "org.imsglobal.lti.close" }, "*");
