using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace DeepBaize.Web.Problems;

/// <summary>What the database says, as problems that name the cause. Codes as in PostgreSQL's manual, appendix A.</summary>
internal static class DatabaseProblems
{
    private const string Kept = "What you were editing is still here.";

    /// <returns>Null if it is a fault of ours.</returns>
    public static ProblemDetails? Of(Exception? e) =>
        e switch
        {
            null => null,
            DbUpdateConcurrencyException => Changed,
            PostgresException p => Reported(p),
            NpgsqlException => Away,
            // The pool gave no connection in time.
            TimeoutException => Crowded,
            InvalidOperationException or DbUpdateException => Of(e.InnerException),
            _ => null,
        };

    private static ProblemDetails? Reported(PostgresException p) =>
        p.SqlState switch
        {
            PostgresErrorCodes.UniqueViolation or PostgresErrorCodes.ForeignKeyViolation => Changed,
            PostgresErrorCodes.DiskFull => Problem(507, "diskFull", "The disk of the database is full.", "make room on it, and save again"),
            PostgresErrorCodes.TooManyConnections or PostgresErrorCodes.OutOfMemory => Crowded,
            PostgresErrorCodes.ReadOnlySqlTransaction => Problem(
                503,
                "readOnly",
                "The database takes no changes at the moment.",
                "try again once it does"
            ),
            PostgresErrorCodes.QueryCanceled or PostgresErrorCodes.LockNotAvailable => Problem(
                503,
                "databaseBusy",
                "The database took too long.",
                "try again"
            ),
            PostgresErrorCodes.DeadlockDetected or PostgresErrorCodes.SerializationFailure => Problem(
                503,
                "databaseBusy",
                "Two changes met in the database.",
                "try again"
            ),
            { } state when state.StartsWith("57P", StringComparison.Ordinal) => Away,
            // What cannot be stored is the input's fault; what checks should have found is in the log all the same.
            { } state when state.StartsWith("22", StringComparison.Ordinal) => ProblemsSetup.Input(
                400,
                [new("body", "The database cannot store this.", "figures and texts as in /openapi/v1.json", "notStorable")]
            ),
            _ => null,
        };

    private static ProblemDetails Changed =>
        Problem(409, "conflict", "It was changed elsewhere in the meantime.", "load it again, then save");

    private static ProblemDetails Away => Problem(503, "databaseAway", "The database does not answer.", "try again once it is back");

    private static ProblemDetails Crowded => Problem(503, "databaseCrowded", "The database has too much to do.", "try again in a moment");

    private static ProblemDetails Problem(int status, string code, string title, string what) =>
        new()
        {
            Status = status,
            Title = title,
            Detail = $"{Kept} {char.ToUpperInvariant(what[0])}{what[1..]}.",
            Extensions = { ["code"] = code },
        };
}
