using Microsoft.AspNetCore.OpenApi;

namespace DeepBaize.Web;

/// <summary>What <c>/openapi/v1.json</c> says of the API as a whole.</summary>
internal static class OpenApiDescription
{
    public static void Configure(OpenApiOptions options) =>
        options.AddDocumentTransformer(
            (document, _, _) =>
            {
                document.Info.Title = "Deep Baize";
                document.Info.Description =
                    "Metres, seconds and radians, degrees where a name says so; "
                + "x up the table from the baulk cushion, y across from the yellow's side.";
                document.Servers?.Clear();
                return Task.CompletedTask;
            }
        );
}
