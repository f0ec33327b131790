using DeepBaize.Web.Problems;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.Net.Http.Headers;

namespace DeepBaize.Web.Safeguards;

/// <summary>
/// What a page of somebody else's, open in the same browser, must not do: change what is stored, or read it. Every browser says where a
/// request comes from (Fetch Metadata, and Origin, RFC 6454); who says nothing is no browser. A body must say that it is JSON, which a
/// foreign form cannot (OWASP, Cross-Site Request Forgery Prevention).
/// </summary>
internal static class ForeignPages
{
    public static void UseOwnPagesOnly(this WebApplication app) =>
        app.Use(
            (http, next) =>
            {
                if (IsForeign(http.Request))
                    throw new RefusedException(
                        StatusCodes.Status403Forbidden,
                        "foreignPage",
                        "Only Deep Baize's own page may do this.",
                        "The request came from another page."
                    );
                CheckBody(http);
                return next(http);
            }
        );

    private static bool IsForeign(HttpRequest request)
    {
        if (HttpMethods.IsGet(request.Method) || HttpMethods.IsHead(request.Method) || HttpMethods.IsOptions(request.Method))
            return false;
        var site = request.Headers["Sec-Fetch-Site"].ToString();
        if (site is not ("" or "same-origin" or "none"))
            return true;
        var origin = request.Headers.Origin.ToString();
        return origin != "" && !string.Equals(origin, $"{request.Scheme}://{request.Host}", StringComparison.OrdinalIgnoreCase);
    }

    /// <summary>JSON; where files of a device come in, lines of JSON or CSV, which no foreign form can say of itself either.</summary>
    private static IEnumerable<string> TakenBy(Endpoint? endpoint) =>
        endpoint?.Metadata.GetMetadata<IAcceptsMetadata>()?.ContentTypes.Intersect(Files) is { } files && files.Any() ? files : [Json];

    /// <summary>What may be sent to an endpoint, to be told.</summary>
    public static string Taken(Endpoint? endpoint) => string.Join(", ", TakenBy(endpoint));

    private const string Json = "application/json";
    private static readonly string[] Files = ["application/x-ndjson", "text/csv"];

    /// <exception cref="BadHttpRequestException">There is a body that does not say it is what is taken here, in UTF-8.</exception>
    private static void CheckBody(HttpContext http)
    {
        if (http.Features.Get<IHttpRequestBodyDetectionFeature>()?.CanHaveBody != true)
            return;
        var isTaken =
            MediaTypeHeaderValue.TryParse(http.Request.ContentType, out var type)
            && TakenBy(http.GetEndpoint()).Any(taken => type.MediaType.Equals(taken, StringComparison.OrdinalIgnoreCase))
            && (
                !type.Charset.HasValue
                || type.Charset.Equals("utf-8", StringComparison.OrdinalIgnoreCase)
                || type.Charset.Equals("\"utf-8\"", StringComparison.OrdinalIgnoreCase)
            );
        if (!isTaken)
            throw new BadHttpRequestException("not JSON", StatusCodes.Status415UnsupportedMediaType);
    }
}
