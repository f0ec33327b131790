using DeepBaize.Core;
using DeepBaize.Core.Players;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Records;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Positions;

/// <summary>What trials must be to be kept with a position.</summary>
internal static class TrialChecks
{
    public const int Most = 40,
        MostPoints = 200,
        MostEarlier = 40,
        MostName = 80,
        MostWords = 300;

    /// <summary>How far beyond the noses a line may go, m: into a pocket, or over a cushion.</summary>
    private const double Beyond = 1;

    /// <returns>The trials with their texts trimmed.</returns>
    /// <exception cref="InputException">Too many, a name that is empty or too long, a stroke or a line that cannot be.</exception>
    public static IReadOnlyList<TrialEntry> Of(IReadOnlyList<TrialEntry> trials, TableShape shape)
    {
        var checks = new Checks("trials");
        checks.Range("length", trials.Count, 0, Most);
        checks.ThrowIfAny();
        var ids = new HashSet<string>();
        return [.. trials.Select((t, i) => One(t, $"trials[{i}]", shape, ids))];
    }

    private static TrialEntry One(TrialEntry trial, string field, TableShape shape, HashSet<string> ids)
    {
        var checks = new Checks(field);
        checks.That(trial is not null, "", "There is no trial.", "a trial");
        checks.ThrowIfAny();
        checks.That(
            trial!.Id is { Length: > 0 and <= 40 } && ids.Add(trial.Id),
            "id",
            "The id is missing, too long or there twice.",
            "1 to 40 characters, each once"
        );
        checks.Range("line.length", trial.Line.Count, 1, MostPoints);
        checks.Range("met", trial.Met, 0, Math.Max(0, trial.Line.Count - 1));
        for (var i = 0; i < trial.Line.Count && i < MostPoints; i++)
            Place(trial.Line[i], $"line[{i}]", checks);
        if (trial.SeenWhite is { } white)
            Place(white, "seenWhite", checks);
        if (trial.SeenBall is { } ball)
            Place(ball, "seenBall", checks);
        checks.That(trial.Earlier is { Count: <= MostEarlier }, "earlier", "There are too many attempts.", $"0 to {MostEarlier}");
        foreach (var (end, i) in (trial.Earlier ?? []).Take(MostEarlier).Select((e, i) => (e, i)))
        {
            Place(end?.White, $"earlier[{i}].white", checks);
            if (end?.Ball is { } stopped)
                Place(stopped, $"earlier[{i}].ball", checks);
        }
        checks.ThrowIfAny();
        trial.Stroke.ToStroke(Player.Default.NaturalElevation).ToStrike($"{field}.stroke");
        if (trial.Balls is { } balls)
            Layout.Check(BallEntries.Of(balls), shape, $"{field}.balls");
        return trial with
        {
            Name = Texts.Checked($"{field}.name", trial.Name, MostName, required: true),
            Outcome = Texts.Checked($"{field}.outcome", trial.Outcome, MostWords, required: false),
            Change = Texts.Checked($"{field}.change", trial.Change, MostWords, required: false),
        };
    }

    /// <summary>Whether a place can be on a line: on the table, in a pocket or just off it.</summary>
    public static bool IsNear(TracePoint? at) =>
        at is not null && at.X is >= -Beyond and <= Dimensions.Length + Beyond && at.Y is >= -Beyond and <= Dimensions.Width + Beyond;

    private static void Place(TracePoint? at, string field, Checks checks)
    {
        checks.That(at is not null, field, "There is no place.", "a place");
        if (at is null)
            return;
        checks.Range($"{field}.x", at.X, -Beyond, Dimensions.Length + Beyond, " m");
        checks.Range($"{field}.y", at.Y, -Beyond, Dimensions.Width + Beyond, " m");
    }
}
