using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Practice;

/// <summary>
/// What was seen of one attempt. What nobody has said, or measured, is null: a rule that needs it cannot be judged by it.
/// </summary>
public sealed record Observation
{
    /// <summary>Returns what is seen of an attempt that was counted by hand.</summary>
    /// <param name="reasons">Why it was not done: side that was not meant is one.</param>
    public static Observation Counted(bool? said, Vec2? white, Vec2? ball, IReadOnlyList<string> reasons, int? score) =>
        new()
        {
            Said = said,
            White = white,
            Ball = ball,
            Side = reasons.Contains("left") || reasons.Contains("right") ? true : null,
            Score = score,
        };

    /// <summary>Whoever played says that it did what was asked, places apart.</summary>
    public bool? Said { get; init; }

    /// <summary>Whether the ball that was meant went into the pocket that was meant.</summary>
    public bool? Potted { get; init; }

    /// <summary>Where the white stopped, m.</summary>
    public Vec2? White { get; init; }

    /// <summary>Where the ball that was struck stopped, m.</summary>
    public Vec2? Ball { get; init; }

    /// <summary>Whether the white, or the struck ball, went into a pocket or off the table.</summary>
    public bool? WhiteLost { get; init; }

    /// <inheritdoc cref="WhiteLost"/>
    public bool? BallLost { get; init; }

    /// <summary>The balls that the white met, in order, each once; null if it was not watched.</summary>
    public IReadOnlyList<Ball>? Met { get; init; }

    /// <summary>The white's way in straight pieces, m; null if it was not watched.</summary>
    public IReadOnlyList<Segment>? Way { get; init; }

    /// <summary>How often the white met a cushion or a jaw; null if it was not watched.</summary>
    public int? Cushions { get; init; }

    /// <summary>Whether the tip met the white beside the middle more than was meant: marks say so.</summary>
    public bool? Side { get; init; }

    /// <summary>Points of a run.</summary>
    public int? Score { get; init; }

    /// <summary>All that a stroke that was played out shows.</summary>
    /// <param name="pot">The pot that was meant, if any.</param>
    public static Observation Of(ShotRecord record, Simulator after, Layout layout, Pot? pot)
    {
        var met = new List<Ball>();
        var cushions = 0;
        foreach (var e in record.Events)
        {
            if (e.IsOfWhiteWithBall && layout.Balls[e.Ball + e.Other].Ball is var ball && !met.Contains(ball))
                met.Add(ball);
            if (e is { Ball: 0, Kind: ShotEventKind.Cushion or ShotEventKind.Jaw })
                cushions++;
        }
        var struck = met.Count > 0 ? layout.SlotOf(met[0]) : -1;
        return new()
        {
            Said = pot is null || after.PocketOf(pot.Slot) == pot.Pocket,
            Potted = pot is null ? null : after.PocketOf(pot.Slot) == pot.Pocket,
            WhiteLost = !after.IsOnTable(0),
            White = after.IsOnTable(0) ? after.At(0) : null,
            BallLost = struck >= 0 && !after.IsOnTable(struck),
            Ball = struck >= 0 && after.IsOnTable(struck) ? after.At(struck) : null,
            Met = met,
            Way = [.. Contacts.StraightWay(record)],
            Cushions = cushions,
        };
    }
}
