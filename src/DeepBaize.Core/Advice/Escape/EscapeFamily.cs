using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Advice.Escape;

/// <summary>
/// An escape as players keep it: from anywhere in a band of places, off one point of a cushion, with one tip and pace, to the same ball.
/// </summary>
/// <param name="Point">Where the white's centre meets the first cushion, m.</param>
/// <param name="Cushions">All that it comes off, in order.</param>
/// <param name="Places">Centres of the cells of the band, m, <see cref="Cell"/> apart: from each the ball is hit so.</param>
/// <param name="Across">How far across its line of aim the white may lie from here and still hit, m.</param>
public sealed record EscapeFamily(
    Vec2 Point,
    IReadOnlyList<Cushion> Cushions,
    IReadOnlyList<Vec2> Places,
    (double Left, double Right) Across
)
{
    /// <summary>The first cushion, on which the point lies.</summary>
    public Cushion Cushion => Cushions[0];

    /// <summary>Distance of the places from one another, m.</summary>
    public const double Cell = 0.075;

    private const double MostAcross = 0.8,
        AcrossStep = 0.01;

    /// <summary>Returns the family of an escape that comes off a cushion; null if the stroke does not hit off one.</summary>
    /// <param name="stroke">Aimed as the escape is.</param>
    public static EscapeFamily? Of(Situation from, Stroke stroke, TableShape shape, Workers workers)
    {
        var (simulator, record) = (new Simulator(shape), new ShotRecord());
        if (Played(from.Layout, stroke, simulator, record) is not { Cushions.Count: > 0, OffJaw: false } way)
            return null;
        var columns = (int)(Dimensions.Length / Cell);
        var rows = (int)(Dimensions.Width / Cell);
        var found = workers.InParallel(
            columns,
            i =>
            {
                var (own, log, places) = (new Simulator(shape), new ShotRecord(), new List<Vec2>());
                for (var k = 0; k < rows; k++)
                {
                    var place = new Vec2((i + 0.5) * Cell, (k + 0.5) * Cell);
                    if (Hits(from, stroke, place, way, own, log))
                        places.Add(place);
                }
                return places;
            }
        );
        var left = Angle.FromDegrees(stroke.AimDegrees).Unit.Left;
        double Across(int side)
        {
            var far = 0.0;
            while (far < MostAcross && Hits(from, stroke, from.Layout.White.At + side * (far + AcrossStep) * left, way, simulator, record))
                far += AcrossStep;
            return far;
        }
        return new(way.Point, way.Cushions, [.. found.SelectMany(p => p)], (Across(1), Across(-1)));
    }

    /// <summary>A ball that lies no farther than this from where the family's ball lay is hit by it, m.</summary>
    private const double Near = 0.08;

    /// <summary>
    /// The family's stroke from where the white lies now; null if no ball on lies where its ball lay, or from here it does not hit it so.
    /// </summary>
    /// <param name="stroke">Its tip, pace and elevation.</param>
    /// <param name="ball">Where its ball lay, m.</param>
    public Stroke? From(Situation situation, Stroke stroke, Vec2 ball, Player player, TableShape shape)
    {
        var (layout, simulator, record) = (situation.Layout, new Simulator(shape), new ShotRecord());
        for (var slot = 1; slot < layout.Balls.Count; slot++)
            if (
                layout.Balls[slot].At.DistanceTo(ball) < Near
                && situation.Frame.MayPlay(layout.Balls[slot].Ball)
                && Aimed(layout, stroke, Point, simulator.Conditions) is var aimed
                && Played(layout, aimed, simulator, record) is { } way
                && way.Slot == slot
                && way.Cushions.SequenceEqual(Cushions)
            )
                return aimed with { ElevationDegrees = Math.Max(aimed.ElevationDegrees, Reach.ButtFor(layout, aimed, player)) };
        return null;
    }

    /// <summary>The stroke aimed from the white of a layout at a point, with the butt at least as the cue lies.</summary>
    private static Stroke Aimed(Layout layout, Stroke stroke, Vec2 point, Conditions conditions)
    {
        var squirt = Strike.Squirt(Tip.Fraction(stroke.SideTips), conditions).Degrees;
        var aimed = stroke with { AimDegrees = (point - layout.White.At).Direction.Degrees - squirt };
        return aimed with { ElevationDegrees = Math.Max(stroke.ElevationDegrees, Reach.LeastFor(layout, aimed)) };
    }

    private sealed record Way(int Slot, IReadOnlyList<Cushion> Cushions, Vec2 Point, bool OffJaw);

    /// <summary>Whether the stroke, played from another place off the same point, hits the ball off the same cushions.</summary>
    private static bool Hits(Situation from, Stroke stroke, Vec2 place, Way way, Simulator simulator, ShotRecord record)
    {
        const double least = 1.5 * Dimensions.BallRadius;
        var bed = Dimensions.BallRadius;
        if (place.X < bed || place.Y < bed || place.X > Dimensions.Length - bed || place.Y > Dimensions.Width - bed)
            return false;
        if (place.DistanceTo(way.Point) < least)
            return false;
        var balls = from.Layout.Balls.Select((b, i) => i == 0 ? new PlacedBall(b.Ball, place) : b).ToArray();
        for (var i = 1; i < balls.Length; i++)
            if (balls[i].Gap(place) < 0)
                return false;
        var layout = Layout.OfRest(balls);
        var aimed = Aimed(layout, stroke, way.Point, simulator.Conditions);
        return Played(layout, aimed, simulator, record) is { } other
            && other.Slot == way.Slot
            && other.Cushions.SequenceEqual(way.Cushions);
    }

    /// <summary>The white's way to its first ball; null if it meets none.</summary>
    private static Way? Played(Layout layout, in Stroke stroke, Simulator simulator, ShotRecord record)
    {
        simulator.Place(layout.AsSpan());
        simulator.Release(
            [(0, stroke.ToStrike().Launch(simulator.Conditions))],
            record,
            () => record.Events.Count > 0 && record.Events[^1].Kind is ShotEventKind.Ball or ShotEventKind.Pot
        );
        var (cushions, point, offJaw) = (new List<Cushion>(), default(Vec2), false);
        foreach (var e in record.Events)
        {
            if (e.Kind == ShotEventKind.Pot)
                return null;
            if (e.Kind is ShotEventKind.Cushion or ShotEventKind.Jaw)
            {
                if (cushions.Count == 0)
                    point = record.Pieces.Find(p => Math.Abs(p.End - e.Time) < 1e-12).To;
                cushions.Add(Table.Cushions.Nearest(e.At));
                offJaw |= e.Kind == ShotEventKind.Jaw;
            }
            if (e.Kind == ShotEventKind.Ball)
                return new(e.Ball + e.Other, cushions, point, offJaw);
        }
        return null;
    }
}
