using DeepBaize.Core.Play;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Valuing;

/// <summary>What a break is played for.</summary>
public enum PlanTarget
{
    /// <summary>To win the frame; in an exercise, as many points as can be expected.</summary>
    Frame,

    /// <summary>As many points as can be expected.</summary>
    MostPoints,

    /// <summary>A break of so many points, however it is made.</summary>
    Score,

    /// <summary>All balls.</summary>
    Clear,
}

/// <summary>How much a miss is minded.</summary>
public enum Risk
{
    /// <summary>A miss is minded more than it costs.</summary>
    Careful,

    /// <summary>A miss is minded as much as it costs.</summary>
    Balanced,

    /// <summary>A miss is minded less than it costs.</summary>
    Bold,
}

/// <summary>What a player asks of a plan.</summary>
/// <param name="Score">Points that the break is to reach; counts with <see cref="PlanTarget.Score"/>.</param>
/// <param name="PlainOnly">No side.</param>
/// <param name="AvoidCannons">The white is to run into nothing after the pot.</param>
/// <remarks>
/// Wishes are kept by every shot of a plan as it is meant; only cannons are merely minded. What a stroke's error does is another matter.
/// </remarks>
public sealed record PlanPreferences(
    PlanTarget Target = PlanTarget.Frame,
    int Score = 0,
    Risk Risk = Risk.Balanced,
    bool PlainOnly = false,
    bool AvoidCannons = false
)
{
    /// <summary>Hardest pace of a soft stroke: below a medium one. Common practice, no source.</summary>
    public const double SoftPace = 4;

    /// <summary>The ball to be on after the first shot; null for any.</summary>
    public Ball? Next { get; init; }

    /// <summary>Balls that are left for later, as long as another one is on.</summary>
    public IReadOnlyList<Ball> Later { get; init; } = [];

    /// <summary>Balls that the white is to stay clear of, unless it pots them.</summary>
    public IReadOnlyList<Ball> KeepOff { get; init; } = [];

    /// <summary>The white is to meet no cushion.</summary>
    public bool NoCushion { get; init; }

    /// <summary>No stroke harder than <see cref="SoftPace"/>.</summary>
    public bool SoftOnly { get; init; }

    /// <summary>Follow before stun and screw where it costs little.</summary>
    public bool FollowFirst { get; init; }

    /// <summary>
    /// Returns which of the balls on are played for: the next one that is wished for if it is among them, else those that are not left for
    /// later; null: all of them.
    /// </summary>
    public Func<Ball, bool>? IsMeant(IReadOnlyCollection<Ball> on)
    {
        if (Next is { } next && on.Contains(next))
            return ball => ball == next;
        return Later.Count > 0 && on.Any(b => !Later.Contains(b)) ? ball => !Later.Contains(ball) : null;
    }

    /// <summary>Hardest pace of a stroke.</summary>
    public double HardestPace => SoftOnly ? SoftPace : double.PositiveInfinity;

    /// <summary>The frame, balanced, all strokes allowed.</summary>
    public static PlanPreferences Default { get; } = new();

    /// <summary>Checks the wishes against the table that is asked about.</summary>
    /// <exception cref="InputException">A score that no break can reach, a ball that is not there, or one that cannot be next.</exception>
    public PlanPreferences Checked(Situation situation, string path = "preferences")
    {
        var checks = new Checks(path);
        var (breakSoFar, highest) = (situation.Frame.Break, situation.Frame.HighestBreak);
        List<Ball> onTable = [.. situation.Layout.Balls.Skip(1).Select(b => b.Ball)];
        checks.That(Enum.IsDefined(Target), "target", "There is no such target.", "frame, mostPoints, score, clear");
        checks.That(Enum.IsDefined(Risk), "risk", "There is no such risk.", "careful, balanced, bold");
        checks.That(
            Target != PlanTarget.Score || (Score > breakSoFar && Score <= highest),
            "score",
            $"A break of {Score} cannot be played for here.",
            highest > breakSoFar ? $"{breakSoFar + 1} to {highest}" : "no score: nothing is left to pot"
        );
        void Balls(IEnumerable<Ball> balls, string field) =>
            checks.That(
                balls.All(onTable.Contains),
                field,
                "There is no such object ball on the table.",
                "object balls that are on the table"
            );
        Balls(Next is { } next ? [next] : [], "next");
        Balls(Later, "later");
        Balls(KeepOff, "keepOff");
        checks.That(
            Next is not { } wanted || situation.Frame.MayFollow(wanted),
            "next",
            "This ball cannot be on after the first shot.",
            "a ball that is on after the ball on has been potted"
        );
        checks.That(Next is not { } meant || !Later.Contains(meant), "next", "This ball is left for later.", "a ball that is not in later");
        checks.ThrowIfAny();
        return this;
    }
}
