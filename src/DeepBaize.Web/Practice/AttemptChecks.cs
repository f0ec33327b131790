using System.Text.Json;
using DeepBaize.Core;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Table;
using DeepBaize.Data;
using DeepBaize.Data.Practice;
using DeepBaize.Web.Records;
using DeepBaize.Web.Shots;

namespace DeepBaize.Web.Practice;

/// <summary>Attempts as they are sent: checked, judged by their routine's rule, written down.</summary>
internal static class AttemptChecks
{
    private const int MostMarks = 8,
        MaxMark = 40;

    /// <summary>An attempt as it was sent, judged by what was laid and asked at its time.</summary>
    /// <param name="Asked">The step that it was made at, not mirrored.</param>
    /// <param name="Laid">The row that stores this step already; null for a new attempt.</param>
    internal sealed record Judged(AttemptEntry Entry, bool IsDone, Step Asked, LaidStep? Laid);

    /// <param name="time">Checks a time.</param>
    /// <param name="filed">What a file says each attempt was made at; null where it does not.</param>
    /// <exception cref="InputException">Anything in it that cannot be; nothing of it is kept then.</exception>
    public static async Task<List<Judged>> CheckedAsync(
        DeepBaizeContext db,
        IReadOnlyList<AttemptEntry> attempts,
        int most,
        Func<DateTimeOffset, DateTimeOffset> time,
        CancellationToken cancel,
        IReadOnlyList<LaidStep?>? filed = null
    )
    {
        if (attempts.Count is 0 || attempts.Count > most)
            throw new InputException("attempts", $"{attempts.Count} attempts were sent.", $"1 to {most}");
        var routines = new Dictionary<string, Routine?>();
        var checkedOnes = new List<Judged>();
        var known = await db.LaidOfAsync([.. attempts.Select(a => a.Id)], cancel);
        for (var i = 0; i < attempts.Count; i++)
        {
            var path = $"attempts[{i}]";
            var attempt = attempts[i] with
            {
                At = time(attempts[i].At),
                Group = Texts.Checked($"{path}.group", attempts[i].Group, Attempt.MaxGroup, required: false),
                Body = [.. attempts[i].Body.Select(b => Texts.Checked($"{path}.body", b, MaxMark, required: true))],
            };
            if (!routines.TryGetValue(attempt.Routine, out var routine))
                routines[attempt.Routine] = routine = await db.RoutineAsync(attempt.Routine, cancel);
            // A routine that was changed since does not judge what was played before.
            var laid =
                known.TryGetValue(attempt.Id, out var kept) && (kept.Routine, kept.Step) == (attempt.Routine, attempt.Step)
                    ? kept.Laid
                    : filed?[i];
            Check(attempt, routine, laid, path);
            var asked = laid?.Step ?? routine!.Steps[attempt.Step];
            checkedOnes.Add(new(attempt, IsDone(attempt, attempt.Mirrored ? asked.Mirrored : asked), asked, laid));
        }
        return checkedOnes;
    }

    private static void Check(AttemptEntry attempt, Routine? routine, LaidStep? laid, string path)
    {
        var checks = new Checks(path);
        checks.That(attempt.Id != Guid.Empty, "id", "The id is empty.", "an id of its own");
        checks.Range("revision", attempt.Revision, 1, 10_000);
        if (attempt.Base is { } sinceRevision)
            checks.Range("base", sinceRevision, 0, 10_000);
        checks.That(
            attempt.Device is not { Length: > Attempt.MaxDevice },
            "device",
            "It is too long.",
            $"up to {Attempt.MaxDevice} letters"
        );
        if (laid is null)
        {
            checks.That(routine is not null, "routine", "There is no such routine.", "one of the list");
            checks.Range("step", attempt.Step, 0, (routine?.Steps.Count ?? 1) - 1);
        }
        checks.That(attempt.Reasons.Count <= MostMarks, "reasons", $"{attempt.Reasons.Count} were given.", $"at most {MostMarks}");
        foreach (var reason in attempt.Reasons)
            checks.That(
                SessionEndpoints.Reasons.Contains(reason),
                "reasons",
                $"There is no such reason.",
                string.Join(", ", SessionEndpoints.Reasons)
            );
        checks.That(attempt.Body.Count <= MostMarks, "body", $"{attempt.Body.Count} were given.", $"at most {MostMarks}");
        foreach (var (name, place) in new[] { ("white", attempt.White), ("ball", attempt.Ball) })
            if (place is { } p)
            {
                checks.Range($"{name}.x", p.X, 0, Dimensions.Length, " m");
                checks.Range($"{name}.y", p.Y, 0, Dimensions.Width, " m");
            }
        if (attempt.Score is { } score)
            checks.Range("score", score, 0, 999);
        foreach (var (kind, count) in attempt.Kinds)
        {
            checks.That(
                SessionEndpoints.RunKinds.Contains(kind),
                "kinds",
                "There is no such kind.",
                string.Join(", ", SessionEndpoints.RunKinds)
            );
            checks.Range($"kinds.{kind}", count, 0, 200);
        }
        checks.ThrowIfAny();
        SessionEndpoints.CheckStroke(attempt.Stroke, $"{path}.stroke");
    }

    private static bool IsDone(AttemptEntry attempt, Step asked)
    {
        static Vec2? Place(PlaceResult? place) => place is { } p ? new(p.X, p.Y) : null;
        return asked.Counts(Observation.Counted(attempt.Said, Place(attempt.White), Place(attempt.Ball), attempt.Reasons, attempt.Score));
    }

    public static Attempt New(AttemptEntry entry, PracticeSession session) =>
        new()
        {
            Id = entry.Id,
            OwnerId = User.LocalId,
            SessionId = session.Id,
            Revision = entry.Revision,
            PlayerId = session.PlayerId,
            TableId = session.TableId,
            CueId = session.CueId,
            At = entry.At,
            Routine = entry.Routine,
            Step = entry.Step,
            IsMirrored = entry.Mirrored,
            IsDone = false,
            Reasons = [],
            Body = [],
            ChangedIn = 0,
        };

    /// <summary>
    /// Whether a correction was made without knowing of one that another device has sent: that one stays, and this one is told.
    /// </summary>
    public static bool IsConflict(AttemptEntry entry, Attempt kept) =>
        !IsSame(entry, kept)
        && (
            entry.Device is null
                ? entry.Revision == kept.Revision
                : entry.Device != kept.Device && (entry.Base ?? entry.Revision - 1) < kept.Revision
        );

    private static bool IsSame(AttemptEntry entry, Attempt kept)
    {
        static string Text(object value) => JsonSerializer.Serialize(value, RoutineRecord.Json);
        var r = AttemptResult.Of(kept);
        return Text(
                new
                {
                    entry.Routine,
                    entry.Step,
                    entry.Mirrored,
                    entry.Said,
                    entry.Reasons,
                    entry.Body,
                    entry.White,
                    entry.Ball,
                }
            )
                == Text(
                    new
                    {
                        r.Routine,
                        r.Step,
                        r.Mirrored,
                        r.Said,
                        r.Reasons,
                        r.Body,
                        r.White,
                        r.Ball,
                    }
                )
            && Text(
                new
                {
                    entry.Score,
                    entry.Kinds,
                    entry.Stroke,
                    entry.Group,
                    entry.Withdrawn,
                }
            )
                == Text(
                    new
                    {
                        r.Score,
                        r.Kinds,
                        r.Stroke,
                        r.Group,
                        r.Withdrawn,
                    }
                );
    }

    public static void Write(Judged judged, string laid, Attempt kept)
    {
        var (entry, isDone) = (judged.Entry, judged.IsDone);
        (kept.Device, kept.LaidHash) = (entry.Device, laid);
        (kept.Revision, kept.At, kept.Routine, kept.Step, kept.IsMirrored) = (
            entry.Revision,
            entry.At,
            entry.Routine,
            entry.Step,
            entry.Mirrored
        );
        (kept.Said, kept.IsDone, kept.Reasons, kept.Body) = (entry.Said, isDone, [.. entry.Reasons], [.. entry.Body]);
        (kept.WhiteX, kept.WhiteY, kept.BallX, kept.BallY) = (entry.White?.X, entry.White?.Y, entry.Ball?.X, entry.Ball?.Y);
        (kept.Score, kept.Kinds, kept.Stroke, kept.Group, kept.IsWithdrawn) = (
            entry.Score,
            entry.Kinds,
            entry.Stroke,
            entry.Group,
            entry.Withdrawn
        );
    }
}
