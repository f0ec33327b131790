namespace DeepBaize.Web.Safeguards;

/// <summary>
/// What browsers are told of every answer (OWASP, HTTP Headers and Content Security Policy cheat sheets): own scripts, styles and
/// connections only, in no frame, types as they are said to be, no word to other sites of where one was.
/// </summary>
internal static class Headers
{
    private const string Policy =
        "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; font-src 'self' data:; connect-src 'self'; "
        + "manifest-src 'self'; worker-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

    public static void UseHeaders(this WebApplication app) =>
        app.Use(
            (http, next) =>
            {
                // At the last moment: an answer that tells of a failure begins anew, without what was set before.
                http.Response.OnStarting(() => Set(http));
                return next(http);
            }
        );

    private static Task Set(HttpContext http)
    {
        var headers = http.Response.Headers;
        headers.ContentSecurityPolicy = Policy;
        headers.XContentTypeOptions = "nosniff";
        headers.XFrameOptions = "DENY";
        headers["Referrer-Policy"] = "no-referrer";
        headers["Cross-Origin-Opener-Policy"] = "same-origin";
        headers["Cross-Origin-Resource-Policy"] = "same-origin";
        headers["Permissions-Policy"] = "camera=(self), microphone=(), geolocation=(), payment=(), usb=()";
        // What is stored is nobody's business but the asker's: no cache on the way keeps it.
        if (http.Request.Path.StartsWithSegments("/api"))
            headers.CacheControl = "no-store";
        return Task.CompletedTask;
    }
}
