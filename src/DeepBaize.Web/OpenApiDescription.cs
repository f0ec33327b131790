using System.Reflection;
using DeepBaize.Core.Sampling;
using DeepBaize.Data.Answers;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace DeepBaize.Web;

/// <summary>What <c>/openapi/v1.json</c> says: of the API as a whole here, of each schema and field what its docstring says.</summary>
internal static class OpenApiDescription
{
    public static void Configure(OpenApiOptions options)
    {
        var docs = new XmlDocs(typeof(Program).Assembly, typeof(Data.DeepBaizeContext).Assembly, typeof(Core.InputException).Assembly);
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
        options.AddOperationTransformer(
            (operation, context, _) =>
            {
                if (context.Description.ActionDescriptor.EndpointMetadata.OfType<Idempotency.TakesKey>().Any())
                    (operation.Parameters ??= []).Add(
                        new OpenApiParameter
                        {
                            Name = Idempotency.Header,
                            In = ParameterLocation.Header,
                            Description = "A name of one's own for this request: asked again with the same one, it creates nothing anew.",
                            Schema = new OpenApiSchema { Type = JsonSchemaType.String, MaxLength = KeptAnswer.MaxKey },
                        }
                    );
                return Task.CompletedTask;
            }
        );
        options.AddSchemaTransformer(
            (schema, context, _) =>
            {
                // A field of a type of ours refers to that type's own schema; only plain ones are described in place.
                var type = Nullable.GetUnderlyingType(context.JsonTypeInfo.Type) ?? context.JsonTypeInfo.Type;
                schema.Description ??=
                    !IsOurs(type) && context.JsonPropertyInfo is { AttributeProvider: PropertyInfo property }
                        ? docs.Of(property)
                        : docs.Of(type) ?? (type == typeof(ProblemDetails) ? Problem : null);
                // A struct can be made without its fields, but is never sent so.
                if (type == typeof(Estimate) || type == typeof(MeanRest))
                    schema.Required = schema.Properties?.Keys.ToHashSet();
                return Task.CompletedTask;
            }
        );
    }

    private const string Problem =
        "What went wrong (RFC 9457), with a code; of an input, errors lists each fault with its field, message, allowed range and code.";

    private static bool IsOurs(Type type) => type.Namespace?.StartsWith("DeepBaize", StringComparison.Ordinal) == true;
}
