using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Reading;

/// <summary>What a property of the table changes, by one stroke that shows it.</summary>
/// <param name="Scale">The property.</param>
/// <param name="Value">
/// Cloth: how far a plain five runs, m. Cushions: how far it runs after the first cushion, m. Pockets: how far a long red may be off at
/// the corner, degrees. Balls: throw of a half-ball cut, degrees. Cue: squirt of one tip of side, degrees.
/// </param>
/// <param name="Standard">What this property comes to on a match table, in the unit of the value.</param>
/// <param name="Way">The white's way, where the stroke shows it; else empty.</param>
public sealed record ConditionEffect(ConditionScale Scale, double Value, double Standard, IReadOnlyList<Vec2> Way);

/// <summary>Strokes that show what conditions do.</summary>
public static class ConditionEffects
{
    /// <summary>A level cue, centre ball, pace 5, up the table from the baulk line beside the spots.</summary>
    private static readonly Stroke PlainFive = new(0, 0, 0, 5, 0);
    private static readonly (string?, double, double)[] Lone = [("white", BaulkLineX, 0.5)];

    /// <summary>The effect of each property alone: all others are a match table's.</summary>
    public static IReadOnlyList<ConditionEffect> Of(Conditions conditions) =>
        [
            .. ConditionScale.All.Select(s => new ConditionEffect(
                s,
                Value(s.Name, s.Alone(conditions)),
                Value(s.Name, Conditions.Default),
                Way(s, conditions)
            )),
        ];

    private static IReadOnlyList<Vec2> Way(ConditionScale scale, Conditions conditions) =>
        scale.Name is "cloth" or "cushions" ? [.. ShotPath.Points(Run(scale.Alone(conditions)), 1, 0.004)[0].Select(p => p.At)] : [];

    private static double Value(string scale, Conditions conditions)
    {
        var shape = new TableShape(conditions);
        switch (scale)
        {
            case "cloth":
                return LengthOf(Run(conditions), 0);
            case "cushions":
                var record = Run(conditions);
                return LengthOf(record, record.Events.Find(e => e.Kind == ShotEventKind.Cushion).Time);
            case "pockets":
                // A red 1.8 m from the corner, 18° to the cushion: the long pot that players compare tables by.
                var red = new Vec2(Length - 1.8 * Math.Cos(18 * Math.PI / 180), Width - 1.8 * Math.Sin(18 * Math.PI / 180));
                var layout = Layout.Create([("white", red.X - 0.8, red.Y - 0.3), ("red-1", red.X, red.Y)], shape);
                return Cut.Of(layout, new(1, Pocket.GreenTop), shape).OpeningDegrees;
            case "balls":
                // Half-ball with stun at pace 4, where throw is large.
                var table = Layout.Create([("white", 1.5, 0.9), ("red-1", 1.9, 0.9)], shape);
                var aim = Math.Asin(BallRadius / (0.4 - 0)) * 180 / Math.PI;
                var stroke = new Stroke(aim, 0, -0.15, 4, 0);
                var (simulator, played) = (new Simulator(shape), new ShotRecord());
                stroke.Play(simulator, table, played);
                return Math.Abs(Arrival.Of(played, stroke.ToStrike(), shape)?.ThrowDegrees ?? 0);
            default:
                return Math.Abs(Strike.Squirt(Tip.Fraction(1), conditions).Degrees);
        }
    }

    private static ShotRecord Run(Conditions conditions)
    {
        var shape = new TableShape(conditions);
        var (simulator, record) = (new Simulator(shape), new ShotRecord());
        PlainFive.Play(simulator, Layout.Create(Lone, shape), record);
        return record;
    }

    private static double LengthOf(ShotRecord record, double from) =>
        record.Pieces.Where(p => p.Start >= from - 1e-9).Sum(p => p.From.DistanceTo(p.To));
}
