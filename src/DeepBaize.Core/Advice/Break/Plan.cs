using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Advice.Break;

/// <summary>Where the white is if the stroke is a standard deviation of pace off, and what is on from there.</summary>
/// <param name="Scores">Whether it still scores.</param>
/// <param name="Next">The pot to play from there; null if none is on.</param>
/// <param name="Chance">Chance of the next pot; 0 if none is on.</param>
public sealed record CoverOutcome(Vec2 White, bool Scores, Ball? Next, Pocket? Pocket, double Chance);

/// <summary>What an error of a standard deviation of pace leaves.</summary>
public sealed record Cover(CoverOutcome Long, CoverOutcome Short)
{
    /// <summary>Plays a stroke with an error of pace to either side.</summary>
    /// <param name="pace">Size of the error, as a share of the cue's speed.</param>
    public static Cover Of(Workspace workspace, Situation before, in Stroke stroke, Ball? nominated, double pace) =>
        new(OutcomeOf(workspace, before, stroke, nominated, pace), OutcomeOf(workspace, before, stroke, nominated, -pace));

    private static CoverOutcome OutcomeOf(Workspace workspace, Situation before, in Stroke stroke, Ball? nominated, double pace)
    {
        var played = workspace.Play(before, stroke, new(0, pace, 0, 0), nominated);
        var (layout, white) = (played.Leaves.Layout, played.Leaves.Layout.White.At);
        if (played.Ruling.Points == 0)
            return new(white, false, null, null, 0);
        var next = workspace.Judge(played.Leaves).Best;
        return new(white, true, next.Pot is { } pot ? layout.Balls[pot.Line.Slot].Ball : null, next.Pot?.Line.Pocket, next.Chance);
    }
}

/// <summary>What is drawn of a shot.</summary>
/// <param name="Arrival">How the white comes to the ball; null if it meets something else first.</param>
/// <param name="WhitePath">m and seconds.</param>
/// <param name="Area">
/// Outline of the places that are as good for the next ball as the one that is meant, m; empty for the last shot.
/// </param>
public sealed record PlanShotDrawing(Arrival? Arrival, IReadOnlyList<PathPoint> WhitePath, IReadOnlyList<Vec2> Area);

/// <summary>A shot of a plan.</summary>
/// <param name="Before">The table it is played from, if all before it went as meant.</param>
/// <param name="Alive">Chance of getting to it.</param>
/// <param name="Points">Of the break after it, if it scores.</param>
/// <param name="Choice">Its next ball is the one that the plan goes on with, if it goes on.</param>
public sealed record PlanShot(
    Situation Before,
    Choice Choice,
    Estimate Alive,
    int Points,
    PlanShotDrawing Drawing,
    Cover Cover,
    IReadOnlyList<ShotWarning> Warnings,
    IReadOnlyList<Reason> Reasons
)
{
    /// <summary>What small errors do to the shot; null until the search has ended.</summary>
    public ShotStudy? Study { get; init; }

    /// <summary>Where the reds lie before it.</summary>
    public required RedSpread RedsBefore { get; init; }

    /// <summary>Where the reds lie after it, if it goes as meant.</summary>
    public required RedSpread RedsAfter { get; init; }
}

/// <summary>What makes an alternative rank lower than the best.</summary>
public enum Shortfall
{
    /// <summary>Nothing: it is the best.</summary>
    None,

    /// <summary>The pot is less likely.</summary>
    Chance,

    /// <summary>It makes fewer points.</summary>
    Points,

    /// <summary>It leaves a worse table.</summary>
    Leave,

    /// <summary>It is more often a foul.</summary>
    Foul,
}

/// <summary>A first shot that could be played, beside the best one.</summary>
/// <param name="Below">In which of its parts most of what it lacks lies.</param>
/// <param name="Value">What breaks that begin with it come to, in the measure of the answer: by this they are ranked.</param>
/// <param name="Points">What they make.</param>
/// <param name="IsLevel">Whether the strokes played cannot tell it from the best.</param>
public sealed record Alternative(Choice Choice, Shortfall Below, Estimate Value, Estimate Points, bool IsLevel);

/// <summary>
/// How a break by a plan is likely to go: it was played many times with the player's errors, each later shot chosen anew by a quick look.
/// </summary>
/// <param name="Value">Mean value of the tables where the breaks ended, in the measure of the answer.</param>
/// <param name="Points">Mean points made from here on, with the control variate.</param>
/// <param name="Median">Of the breaks as they went.</param>
/// <param name="Target">Share in which the target was reached; null if the target is points.</param>
/// <param name="Cleared">Share in which nothing was left.</param>
/// <param name="EndsAt">Index of the shot of the plan at which most breaks end.</param>
/// <param name="EndsShare">Share of all breaks that end there.</param>
/// <param name="Alive">Share that got to each shot.</param>
public sealed record Prospect(
    Estimate Value,
    Estimate Points,
    double Median,
    Estimate? Target,
    Estimate Cleared,
    int EndsAt,
    Estimate EndsShare,
    IReadOnlyList<Estimate> Alive
);

/// <summary>Where a break turns to safety, because the next pot is worth less.</summary>
/// <param name="Before">The table then.</param>
/// <param name="Safety">What it turns to, by a quick look.</param>
/// <param name="Value">Value of the safety, in the measure of the answer.</param>
/// <param name="PotValue">Of the best pot instead; null if none is on.</param>
public sealed record SafetyTurn(Situation Before, TriedSafety Safety, double Value, double? PotValue);

/// <summary>A break, several shots ahead.</summary>
/// <param name="Prospect">Null until it has been played out.</param>
/// <param name="IsComplete">After the last shot nothing is left, or no pot is worth as much as a safety.</param>
public sealed record Plan(IReadOnlyList<PlanShot> Shots, Prospect? Prospect, bool IsComplete)
{
    /// <summary>Names the plan by its first shot: it stays the same while the search goes on.</summary>
    public string Id => Shots[0].Choice.Id;

    /// <summary>What the break turns to after the last shot; null if it goes on, or nothing is left to turn to.</summary>
    public SafetyTurn? Turn { get; init; }
}

/// <summary>How far a search is.</summary>
/// <param name="Unit">Name of the measure: "win", "points" or "target".</param>
/// <param name="ModelError">Standard error of the measure itself, beside that of the breaks played.</param>
/// <param name="Examined">Number of positions examined.</param>
/// <param name="Share">Of the work, 0–1; 1 is the last.</param>
/// <param name="Looked">
/// Of the strokes that are looked at on an ordinary table, the share that was: less where balls run so long that it would take too much
/// work.
/// </param>
/// <param name="Plans">The best so far, best first.</param>
public sealed record PlanProgress(
    string Unit,
    double ModelError,
    long Examined,
    double Share,
    double Looked,
    IReadOnlyList<Plan> Plans,
    IReadOnlyList<Alternative> Alternatives
);
