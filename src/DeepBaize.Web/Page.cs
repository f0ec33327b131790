using System.Diagnostics.CodeAnalysis;
using Microsoft.AspNetCore.StaticFiles;
using Microsoft.Extensions.FileProviders;

namespace DeepBaize.Web;

/// <summary>The page: one document for every place, whatever the address, and the files it is made of.</summary>
internal static class Page
{
    private const string Document = "/index.html";
    private static readonly string[] Others = ["/api", "/openapi", "/health", "/metrics"];

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
        app.Use(
            (context, next) =>
            {
                UseCompressed(context, app.Environment.WebRootFileProvider);
                return next();
            }
        );
        app.UseStaticFiles(
            new StaticFileOptions
            {
                ContentTypeProvider = new Types(),
                OnPrepareResponse = file =>
                {
                    var headers = file.Context.Response.Headers;
                    headers.CacheControl = file.Context.Request.Path.StartsWithSegments("/assets")
                        ? "public, max-age=31536000, immutable"
                        : "no-cache";
                    headers.Vary = "Accept-Encoding";
                    if (file.File.Name.EndsWith(Compressed, StringComparison.Ordinal))
                        headers.ContentEncoding = "br";
                },
            }
        );
    }

    private const string Compressed = ".br";

    /// <summary>The file as the build compressed it, for whoever takes it so.</summary>
    private static void UseCompressed(HttpContext context, IFileProvider files)
    {
        var request = context.Request;
        var takesIt = request.Headers.AcceptEncoding.ToString().Contains("br", StringComparison.Ordinal);
        var path = request.Path + Compressed;
        if (takesIt && request.Path.StartsWithSegments("/assets") && files.GetFileInfo(path).Exists)
            request.Path = path;
    }

    /// <summary>A compressed file is of the type of what is in it.</summary>
    private sealed class Types : IContentTypeProvider
    {
        private readonly FileExtensionContentTypeProvider _types = new();

        public bool TryGetContentType(string path, [MaybeNullWhen(false)] out string type) =>
            _types.TryGetContentType(path.EndsWith(Compressed, StringComparison.Ordinal) ? path[..^Compressed.Length] : path, out type);
    }

    private static bool IsPlace(HttpRequest request) =>
        (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method))
        && !Path.HasExtension(request.Path)
        && !Others.Any(other => request.Path.StartsWithSegments(other));
}
