using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Web.Positions;

namespace DeepBaize.Web.Shots;

/// <summary>What the white may be asked to do.</summary>
public enum GoalKind
{
    /// <summary>Stop in a circle.</summary>
    Stop,

    /// <summary>Run into a ball.</summary>
    Cannon,

    /// <summary>Pass between two balls.</summary>
    Gap,

    /// <summary>Pass a ball by a distance.</summary>
    Past,

    /// <summary>Stop with an angle on a ball into a pocket.</summary>
    Angle,

    /// <summary>Come off a cushion at a place of it.</summary>
    Cushion,

    /// <summary>Leave a ball a clear way into a pocket.</summary>
    Frees,

    /// <summary>Stop a distance from the contact.</summary>
    Drift,

    /// <summary>Meet no cushion.</summary>
    NoCushion,
}

/// <summary>What the white is to do. Which fields count depends on the kind; several goals may be combined.</summary>
public sealed record GoalEntry
{
    [Description("Without it a circle, or, if a ball is named, a ball to run into.")]
    public GoalKind? Kind { get; init; }

    [Description("Of the circle, m.")]
    public double? X { get; init; }
    public double? Y { get; init; }
    public double? Radius { get; init; }

    [Description("The ball that the white is to run into or to pass, the one side of a gap, the ball that is next or to be freed.")]
    public string? Ball { get; init; }

    [Description("The other side of a gap.")]
    public string? Other { get; init; }

    [Description("Into which the ball is to go, of an angle or a ball to be freed.")]
    public string? Pocket { get; init; }

    [Description("How full, 0 to 1, give or take 0.2; null for any.")]
    public double? Fullness { get; init; }

    [Description("Of the white at that contact, m/s.")]
    public double? Slowest { get; init; }
    public double? Fastest { get; init; }

    [Description("Bounds of the distance at which a ball is passed, m, or of the cut on the next ball, degrees.")]
    public double? Least { get; init; }
    public double? Most { get; init; }

    [Description("Of the next ball, m.")]
    public double? Farthest { get; init; }

    [Description("baulk, top, yellow-side or green-side.")]
    public string? Cushion { get; init; }

    [Description("Where along the cushion: across the table for its ends, up the table for its sides; m.")]
    public double? At { get; init; }

    [Description("Distance from the contact, m.")]
    public double? By { get; init; }

    [Description("How far off that it may be, m.")]
    public double? Within { get; init; }

    [Description("Goals that are to be met together with this one.")]
    public IReadOnlyList<GoalEntry>? All { get; init; }

    [Description("Goals of which one is enough instead of this one.")]
    public IReadOnlyList<GoalEntry>? Any { get; init; }

    /// <exception cref="InputException">Not a goal, or one that cannot be.</exception>
    public Goal ToGoal(CheckedContent content, string path = "goal")
    {
        var own = One(content, path);
        Goal With(IReadOnlyList<GoalEntry> others, bool isAll, string name) =>
            Combined.Create([own, .. others.Select((g, i) => g.One(content, $"{path}.{name}[{i}]"))], isAll, path);
        return All is { Count: > 0 } all ? With(all, true, "all")
            : Any is { Count: > 0 } any ? With(any, false, "any")
            : own;
    }

    /// <summary>Whether a goal is about a ball.</summary>
    public bool Names(string ball) =>
        Ball == ball || Other == ball || (All ?? []).Any(g => g.Names(ball)) || (Any ?? []).Any(g => g.Names(ball));

    private Goal One(CheckedContent content, string path)
    {
        const double none = double.NaN;
        int Slot(string? id) => Core.Table.Ball.TryParse(id, out var ball) ? content.Layout.SlotOf(ball) : -1;
        Pocket ThePocket()
        {
            var checks = new Checks(path);
            checks.That(Pockets.TryParse(Pocket, out var pocket), "pocket", "There is no such pocket.", Pockets.AllowedNames);
            checks.ThrowIfAny();
            return pocket;
        }
        Cushion TheCushion()
        {
            var checks = new Checks(path);
            checks.That(Cushions.TryParse(Cushion, out var cushion), "cushion", "There is no such cushion.", Cushions.AllowedNames);
            checks.ThrowIfAny();
            return cushion;
        }
        return (Kind ?? (Ball is null ? GoalKind.Stop : GoalKind.Cannon)) switch
        {
            GoalKind.Stop => StopIn.Create(X ?? none, Y ?? none, Radius ?? none, path),
            GoalKind.Cannon => Core.Strokes.Cannon.Create(
                Slot(Ball),
                content.Pot,
                Fullness,
                Slowest ?? 0,
                Fastest ?? Core.Strokes.Cannon.FastestThereIs,
                path
            ),
            GoalKind.Gap => ThroughGap.Create(content.Layout, Slot(Ball), Slot(Other), path),
            GoalKind.Past => PastBall.Create(Slot(Ball), Least ?? 0, Most ?? none, path),
            GoalKind.Angle => OnAngle.Create(
                Slot(Ball),
                content.Pot,
                ThePocket(),
                (Least ?? none, Most ?? none),
                Farthest ?? 2,
                content.Shape,
                path
            ),
            GoalKind.Cushion => OffCushion.Create(TheCushion(), At ?? none, Within ?? none, path),
            GoalKind.Frees => Core.Strokes.Frees.Create(Slot(Ball), content.Pot, ThePocket(), content.Shape, path),
            GoalKind.Drift => Core.Strokes.Drift.Create(By ?? none, Within ?? none, path),
            _ => new OffNoCushion(),
        };
    }
}
