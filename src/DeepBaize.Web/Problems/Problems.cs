using System.Text.Json;
using System.Text.RegularExpressions;
using DeepBaize.Core;
using Microsoft.AspNetCore.Diagnostics;
using Microsoft.AspNetCore.Http.Features;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace DeepBaize.Web.Problems;

/// <summary>Turns what goes wrong into RFC 9457 problem details; what is wrong with an input is listed under "errors".</summary>
public static partial class ProblemsSetup
{
    public static void AddProblems(this IServiceCollection services)
    {
        services.AddProblemDetails(options =>
            options.CustomizeProblemDetails = context =>
            {
                var details = context.ProblemDetails;
                details.Extensions.Remove("traceId");
                // The framework answers this one itself, without an exception that reaches us.
                if (details.Status == StatusCodes.Status413PayloadTooLarge)
                    (details.Title, details.Detail, details.Extensions["errors"]) = (
                        TooLarge.Message,
                        $"Allowed: {TooLarge.Allowed}.",
                        new[] { TooLarge }
                    );
            }
        );
        services.AddExceptionHandler<ExceptionToProblem>();
        services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
    }

    private static readonly InputError TooLarge = new("body", "The request is too large.", $"at most {Limits.BodyBytes / 1024} kB");

    private sealed class ExceptionToProblem(IProblemDetailsService problems, ILogger<ExceptionToProblem> log) : IExceptionHandler
    {
        public async ValueTask<bool> TryHandleAsync(HttpContext http, Exception exception, CancellationToken cancel)
        {
            if (exception is OperationCanceledException && http.RequestAborted.IsCancellationRequested)
                return true;
            var details = Describe(exception);
            if (details is null)
            {
                log.LogError(exception, "Unexpected failure of {Path}", http.Request.Path);
                details = new()
                {
                    Status = 500,
                    Title = "Something went wrong in Deep Baize itself.",
                    Detail = "Nothing was changed. The log says more.",
                };
            }
            else if (details.Status == 503)
                log.LogWarning("The database does not answer: {Message}", exception.Message);
            http.Response.StatusCode = details.Status!.Value;
            await problems.WriteAsync(new() { HttpContext = http, ProblemDetails = details });
            return true;
        }
    }

    private static ProblemDetails? Describe(Exception exception) =>
        exception switch
        {
            InputException e => Input(400, e.Errors),
            BadHttpRequestException { StatusCode: 413 } => Input(413, [TooLarge]),
            BadHttpRequestException { StatusCode: 415 } => Input(
                415,
                [new("Content-Type", "The request is not JSON.", "application/json")]
            ),
            BadHttpRequestException { InnerException: JsonException json } => Json(json),
            JsonException json => Json(json),
            BadHttpRequestException e => Input(
                e.StatusCode,
                [new(Parameter(e.Message), "The request cannot be read.", "as in /openapi/v1.json")]
            ),
            _ when IsDatabaseAway(exception) => new()
            {
                Status = 503,
                Title = "The database does not answer.",
                Detail = "What you were editing is still here. Try again once the database is back.",
            },
            _ => null,
        };

    private static ProblemDetails Input(int status, IReadOnlyList<InputError> errors) =>
        new()
        {
            Status = status,
            Title = errors.Count == 1 ? errors[0].Message : $"{errors.Count} things are wrong with the input.",
            Detail = string.Join(" ", errors.Take(10).Select(e => $"{e.Field}: {e.Message} Allowed: {e.Allowed}.")),
            Extensions = { ["errors"] = errors },
        };

    private static ProblemDetails Json(JsonException e)
    {
        var path = (e.Path ?? "$").TrimStart('$').TrimStart('.');
        var missing = MissingProperties().Match(e.Message);
        if (missing.Success)
        {
            var names = QuotedNames().Matches(missing.Groups[1].Value).Select(m => m.Groups[1].Value);
            return Input(
                400,
                [.. names.Select(n => new InputError(path == "" ? n : $"{path}.{n}", $"{n} is missing.", "as in /openapi/v1.json"))]
            );
        }
        return Input(
            400,
            [
                new(
                    path == "" ? "body" : path,
                    path == "" ? "This is not JSON of the expected form." : "The value has the wrong form.",
                    "JSON as in /openapi/v1.json"
                ),
            ]
        );
    }

    private static string Parameter(string message)
    {
        var match = QuotedParameter().Match(message);
        return match.Success ? match.Groups[1].Value : "body";
    }

    private static bool IsDatabaseAway(Exception? e) =>
        e switch
        {
            null => false,
            // An error that the server itself reports is ours, unless the server is going down or has no room for us (classes 57P and 53).
            PostgresException p => p.SqlState.StartsWith("57P", StringComparison.Ordinal)
                || p.SqlState.StartsWith("53", StringComparison.Ordinal),
            NpgsqlException => true,
            InvalidOperationException or DbUpdateException => IsDatabaseAway(e.InnerException),
            _ => false,
        };

    [GeneratedRegex("missing required properties including: (.*?)\\.?( Path:|$)")]
    private static partial Regex MissingProperties();

    [GeneratedRegex("'([^']+)'")]
    private static partial Regex QuotedNames();

    [GeneratedRegex("parameter \"\\w+ (\\w+)\"")]
    private static partial Regex QuotedParameter();
}
