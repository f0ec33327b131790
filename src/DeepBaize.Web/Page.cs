namespace DeepBaize.Web;

/// <summary>The page: one document for every place, whatever the address, and the files it is made of.</summary>
internal static class Page
{
    private const string Document = "/index.html";
    private static readonly string[] Others = ["/api", "/openapi", "/health"];

    /// <summary>
    /// Serves the page's files. An address that is neither a file nor the server's own is a place of the page, which finds it by itself.
    /// Files whose names change with their contents are kept by the browser for good; the document that names them is asked for each time.
    /// </summary>
    public static void UsePage(this WebApplication app)
    {
        app.Use(
            (context, next) =>
            {
                if (IsPlace(context.Request))
                    context.Request.Path = Document;
                return next();
            }
        );
        app.UseStaticFiles(
            new StaticFileOptions
            {
                OnPrepareResponse = file =>
                    file.Context.Response.Headers.CacheControl = file.Context.Request.Path.StartsWithSegments("/assets")
                        ? "public, max-age=31536000, immutable"
                        : "no-cache",
            }
        );
    }

    private static bool IsPlace(HttpRequest request) =>
        (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method))
        && !Path.HasExtension(request.Path)
        && !Others.Any(other => request.Path.StartsWithSegments(other));
}
