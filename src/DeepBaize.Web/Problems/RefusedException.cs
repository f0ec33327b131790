using Microsoft.AspNetCore.Mvc;

namespace DeepBaize.Web.Problems;

/// <summary>A request that is refused, or given up, though nothing is wrong with what was sent in it.</summary>
/// <param name="code">For whoever words it anew.</param>
/// <param name="retryAfter">When to try again, s; null if that does not help.</param>
public sealed class RefusedException(int status, string code, string title, string detail, int? retryAfter = null) : Exception(title)
{
    public int? RetryAfter => retryAfter;

    public static RefusedException TooManySearches(int most) =>
        new(
            StatusCodes.Status429TooManyRequests,
            "tooManySearches",
            "Too many searches at once.",
            $"At most {most} may be under way and waiting from one place. Let some of them end first.",
            retryAfter: 5
        );

    public static RefusedException TookTooLong() =>
        new(
            StatusCodes.Status503ServiceUnavailable,
            "tookTooLong",
            "The search took too long and was ended.",
            "Try again when less is going on, or with fewer balls on the table.",
            retryAfter: 5
        );

    public static RefusedException Stopping() =>
        new(
            StatusCodes.Status503ServiceUnavailable,
            "stopping",
            "Deep Baize is being stopped.",
            "Nothing that was saved is lost. Try again once it is back.",
            retryAfter: 5
        );

    public static RefusedException Unexpected() =>
        new(
            StatusCodes.Status500InternalServerError,
            "unexpected",
            "Something went wrong in Deep Baize itself.",
            "Nothing was changed. The log says more."
        );

    public ProblemDetails ToProblem() =>
        new()
        {
            Status = status,
            Title = Message,
            Detail = detail,
            Extensions = { ["code"] = code },
        };
}
