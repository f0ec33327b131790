using System.ComponentModel;
using System.Diagnostics;
using System.Globalization;
using System.Text.Json;
using DeepBaize.Core;
using DeepBaize.Web.Safeguards;
using DeepBaize.Web.Watching;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.AspNetCore.Mvc;
using Microsoft.Extensions.Options;
using JsonOptions = Microsoft.AspNetCore.Http.Json.JsonOptions;

namespace DeepBaize.Web.Problems;

/// <summary>
/// Turns what goes wrong into RFC 9457 problem details with a code; what is wrong with an input is listed under "errors", each with the
/// field,
/// what would be allowed, and a code of its own.
/// </summary>
public static class ProblemsSetup
{
    public static void AddProblems(this IServiceCollection services)
    {
        services.AddProblemDetails(options =>
            options.CustomizeProblemDetails = context =>
            {
                var details = context.ProblemDetails;
                // The framework answers this one itself, without an exception that reaches us.
                if (details.Status == StatusCodes.Status413PayloadTooLarge)
                {
                    var error = TooLarge(context.HttpContext.GetEndpoint());
                    (details.Title, details.Detail) = (error.Message, $"Allowed: {error.Allowed}.");
                    details.Extensions["errors"] = new[] { error };
                }
                details.Complete();
                context.HttpContext.RequestServices.GetRequiredService<SearchMeter>().Refused($"{details.Extensions["code"]}");
            }
        );
        services.AddExceptionHandler<ExceptionToProblem>();
        services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
    }

    /// <summary>
    /// Buffers bodies, so that one that cannot be read can be examined again; up to the limit of the endpoint. After routing.
    /// </summary>
    public static void UseReadableBodies(this IApplicationBuilder app) =>
        app.Use(
            (http, next) =>
            {
                // What goes on for hours is read as it comes, and never again.
                if (http.GetEndpoint()?.Metadata.GetMetadata<StreamedBody>() is not null)
                    return next(http);
                var limit = LimitOf(http.GetEndpoint());
                // Without a length the server counts as it reads.
                if (http.Request.ContentLength > limit)
                    throw new BadHttpRequestException("Request body too large.", StatusCodes.Status413PayloadTooLarge);
                http.Request.EnableBuffering(Limits.BufferedInMemory, limit + 1);
                return next(http);
            }
        );

    /// <summary>What every problem has: a code, and the trace by which the log knows the request.</summary>
    public static ProblemDetails Complete(this ProblemDetails details)
    {
        details.Extensions.TryAdd("code", CodeOf(details.Status));
        details.Extensions["traceId"] = Activity.Current?.TraceId.ToString();
        return details;
    }

    /// <summary>Largest body that an endpoint takes, bytes.</summary>
    private static long LimitOf(Endpoint? endpoint) =>
        endpoint?.Metadata.GetMetadata<IRequestSizeLimitMetadata>()?.MaxRequestBodySize ?? Limits.BodyBytes;

    private static InputError TooLarge(Endpoint? endpoint) =>
        new("body", "The request is too large.", $"at most {LimitOf(endpoint) / 1024} kB", "tooLarge");

    private static string CodeOf(int? status) =>
        status switch
        {
            StatusCodes.Status400BadRequest => "input",
            StatusCodes.Status404NotFound => "notFound",
            StatusCodes.Status409Conflict => "conflict",
            StatusCodes.Status413PayloadTooLarge => "tooLarge",
            StatusCodes.Status415UnsupportedMediaType => "mediaType",
            StatusCodes.Status429TooManyRequests => "tooManyRequests",
            StatusCodes.Status503ServiceUnavailable => "databaseAway",
            >= 500 => "unexpected",
            _ => "refused",
        };

    private sealed class ExceptionToProblem(IProblemDetailsService problems, IOptions<JsonOptions> json, ILogger<ExceptionToProblem> log)
        : IExceptionHandler
    {
        public async ValueTask<bool> TryHandleAsync(HttpContext http, Exception exception, CancellationToken cancel)
        {
            if (exception is OperationCanceledException && http.RequestAborted.IsCancellationRequested)
                return true;
            var details = await DescribeAsync(http, exception, cancel);
            if (details is null)
            {
                log.LogError(exception, "Unexpected failure of {Path}", http.Request.Path);
                details = RefusedException.Unexpected().ToProblem();
            }
            else if (exception is RefusedException { RetryAfter: { } seconds })
                http.Response.Headers.RetryAfter = seconds.ToString(CultureInfo.InvariantCulture);
            else if (details.Status is 503 or 507)
                log.LogWarning("The database does not serve {Path}: {Cause}", http.Request.Path, exception.GetBaseException().Message);
            http.Response.StatusCode = details.Status!.Value;
            // Who accepts only a stream of events gets the problem all the same: better than an empty answer.
            if (!await problems.TryWriteAsync(new() { HttpContext = http, ProblemDetails = details }))
            {
                await http.Response.WriteAsJsonAsync(
                    details.Complete(),
                    json.Value.SerializerOptions,
                    "application/problem+json",
                    CancellationToken.None
                );
            }
            return true;
        }

        private async Task<ProblemDetails?> DescribeAsync(HttpContext http, Exception exception, CancellationToken cancel) =>
            exception switch
            {
                InputException e => Input(400, e.Errors),
                BadHttpRequestException { StatusCode: 413 } => Input(413, [TooLarge(EndpointOf(http))]),
                BadHttpRequestException { StatusCode: 415 } => Input(
                    415,
                    [
                        new(
                            "Content-Type",
                            "The request is not of the kind that is taken here.",
                            ForeignPages.Taken(EndpointOf(http)),
                            "mediaType"
                        ),
                    ]
                ),
                BadHttpRequestException { InnerException: JsonException e } => Input(400, await BodyFaultsAsync(http, e, cancel)),
                JsonException e => Input(400, await BodyFaultsAsync(http, e, cancel)),
                BadHttpRequestException e => Input(e.StatusCode, ParameterFaults(http)),
                RefusedException e => e.ToProblem(),
                _ => DatabaseProblems.Of(exception),
            };

        private async Task<IReadOnlyList<InputError>> BodyFaultsAsync(HttpContext http, JsonException read, CancellationToken cancel)
        {
            var metadata = EndpointOf(http)?.Metadata;
            var options = metadata?.GetMetadata<BodyOptions>()?.Json ?? json.Value.SerializerOptions;
            if (metadata?.GetMetadata<IAcceptsMetadata>()?.RequestType is not { } wanted || !http.Request.Body.CanSeek)
                return [Unreadable];
            http.Request.Body.Position = 0;
            using var body = new MemoryStream();
            await http.Request.Body.CopyToAsync(body, cancel);
            var faults = JsonFaults.Of(body.ToArray(), wanted, options, read.Path);
            return faults.Count > 0 ? faults : [Unreadable];
        }

        private static IReadOnlyList<InputError> ParameterFaults(HttpContext http)
        {
            var wrong =
                from parameter in EndpointOf(http)?.Metadata.GetOrderedMetadata<IParameterBindingMetadata>() ?? []
                where parameter.HasTryParse
                let sent = http.Request.Query[parameter.Name].ToString()
                let type = parameter.ParameterInfo.ParameterType
                where sent != "" && !TypeDescriptor.GetConverter(type).IsValid(sent)
                select new InputError(parameter.Name, "The value has the wrong form.", AllowedFor(type), "wrongForm");
            return [.. wrong.DefaultIfEmpty(Unreadable)];
        }

        private static string AllowedFor(Type type) => type == typeof(bool) ? "true, false" : $"a {type.Name.ToLowerInvariant()}";

        // The handler's middleware has taken the endpoint off the context itself.
        private static Endpoint? EndpointOf(HttpContext http) => http.Features.Get<IExceptionHandlerFeature>()?.Endpoint;

        private static readonly InputError Unreadable = new("body", "The request cannot be read.", "as in /openapi/v1.json", "unreadable");
    }

    /// <summary>Whatever was sent, what is said of it stays short.</summary>
    internal static ProblemDetails Input(int status, IReadOnlyList<InputError> all)
    {
        const int most = 20;
        InputError[] errors =
        [
            .. all.Take(most).Select(e => new InputError(Short(e.Field), Short(e.Message), Short(e.Allowed, 600), e.Code)),
        ];
        return new()
        {
            Status = status,
            Title = all.Count == 1 ? errors[0].Message : $"{all.Count} things are wrong with the input.",
            Detail = string.Join(" ", errors.Take(5).Select(e => $"{e.Field}: {e.Message} Allowed: {e.Allowed}.")),
            Extensions = { ["errors"] = errors },
        };
    }

    private static string Short(string text, int most = 160) => text.Length <= most ? text : $"{text.AsSpan(0, most)}…";
}
