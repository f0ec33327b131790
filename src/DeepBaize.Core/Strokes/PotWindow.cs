using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>
/// How far off the middle of the opening a ball may go and still goes in, some of it off a jaw: past the jaw that stands farther off it may
/// go farther than past the other.
/// </summary>
public readonly record struct PotWindow(Angle Narrow, Angle Wide)
{
    // Beyond the clear opening a jaw still lets in so much, mm across at the pocket, by the angle of the ball's way: of a corner to the
    // nearer cushion, of a middle to straight across. Fitted to played-out windows: docs/planning.md, "How likely, quickly".
    private static readonly (double Degrees, double Beyond)[] CornerNarrow =
        [(7, 6.0), (12, 5.1), (17, 3.6), (22, 4.5), (27, 6.2), (32, 8.6), (37, 10.5), (42, 12.8), (45, 13.4)],
        CornerWide = [(7, 19.8), (12, 20.7), (17, 23), (22, 23.5), (27, 22.1), (32, 20.7), (37, 18.5), (42, 16), (45, 15.3)],
        MiddleNarrow = [(0, 9), (7, 8.6), (17, 7.5), (22, 5.9), (27, 5.5), (32, 4.1), (37, 3.6), (42, 2.5), (47, 1.8), (52, 1), (57, 0.6)],
        MiddleWide =
        [(0, 12.2), (7, 11.8), (17, 10.1), (22, 9.1), (27, 8.2), (32, 7.3), (37, 6.3), (42, 5), (47, 4.3), (52, 3.2), (57, 2.8)];

    /// <summary>Of the way to the middle of the opening.</summary>
    /// <param name="opening">Between the lines that just clear either jaw; negative if there is none.</param>
    /// <param name="direction">Of the ball's way.</param>
    /// <param name="distance">To the drop, m.</param>
    public static PotWindow Of(Angle opening, Angle direction, double distance, Pocket pocket)
    {
        var along = Math.Acos(Math.Min(1, Math.Abs(direction.Unit.X))) * 180 / Math.PI;
        var isMiddle = pocket.IsMiddle();
        var degrees = isMiddle ? 90 - along : Math.Min(along, 90 - along);
        Angle Half((double, double)[] beyond) =>
            Angle.FromRadians(
                Math.Max(0, opening.Radians / 2 + PiecewiseLinear.At(degrees, beyond) / 1000 / Math.Max(distance, BallRadius))
            );
        return isMiddle ? new(Half(MiddleNarrow), Half(MiddleWide)) : new(Half(CornerNarrow), Half(CornerWide));
    }

    /// <summary>
    /// The way into a corner nearly along one of its cushions: to the middle of what goes in there, most of it off the near jaw; null if
    /// the ball does not lie so.
    /// </summary>
    private static (Angle Direction, Angle Opening, PotWindow Window)? AlongCushion(TableShape shape, Pocket into, Vec2 from)
    {
        if (into.IsMiddle())
            return null;
        var drop = shape.PocketShapes[(int)into].Drop.Centre;
        // As seen from the corner: along the cushion that the ball is nearer to, and off it.
        var corner = new Vec2(drop.X > Length / 2 ? Length : 0, drop.Y > Width / 2 ? Width : 0);
        var (x, y) = (Math.Abs(from.X - corner.X), Math.Abs(from.Y - corner.Y));
        var (along, off) = (Math.Max(x, y), Math.Min(x, y));
        var degrees = Math.Atan2(Math.Max(0, off - BallRadius), along) * 180 / Math.PI;
        if (degrees >= RailWindows.Shallow || along < RailWindows.Nearest)
            return null;
        var (low, high) = RailWindows.Of(shape).At(degrees);
        if (high <= low)
            return null;
        var inward = new Vec2(corner.X > 0 ? -1 : 1, corner.Y > 0 ? -1 : 1);
        Angle To(double across) =>
            (
                corner + (x >= y ? new Vec2(0, inward.Y * (BallRadius + across)) : new Vec2(inward.X * (BallRadius + across), 0)) - from
            ).Direction;
        var width = Angle.Between(To(low), To(high));
        var half = 0.5 * width.Abs;
        return (To(low) + 0.5 * width, width.Abs, new(half, half));
    }

    /// <summary>It is led to the middle of the two by so much of the way, for struck harder the far jaw lets less in.</summary>
    private const double Lean = 0.7;

    /// <summary>
    /// The way on which a ball is sent straight into a pocket: into a corner not to the middle of the clear opening but nearer to the
    /// middle of what goes in, away from the cushion it runs along.
    /// </summary>
    /// <returns>
    /// With the clear opening, not positive if there is none, and the window about that way; along a cushion the opening is the window.
    /// </returns>
    public static (Angle Direction, Angle Opening, PotWindow Window) Into(TableShape shape, Pocket into, Vec2 from)
    {
        var pocket = shape.PocketShapes[(int)into];
        if (AlongCushion(shape, into, from) is { } along)
            return along;
        var (direction, opening) = Cut.Opening(from, pocket);
        var window = Of(opening, direction, from.DistanceTo(pocket.Drop.Centre) - pocket.Drop.Radius, pocket.Pocket);
        if (opening.Radians <= 0 || pocket.Pocket.IsMiddle())
            return (direction, opening, window);
        var lean = 0.5 * Lean * (window.Wide - window.Narrow);
        // To the left of its way, or to the right: whichever leads off the cushion that is nearly along it.
        var unit = direction.Unit;
        var isAlongX = Math.Abs(unit.X) > Math.Abs(unit.Y);
        var toLeft = isAlongX
            ? unit.Left.Y * (pocket.Drop.Centre.Y > Width / 2 ? -1 : 1)
            : unit.Left.X * (pocket.Drop.Centre.X > Length / 2 ? -1 : 1);
        return (direction + Math.Sign(toLeft) * lean, opening, new(window.Narrow + lean, window.Wide - lean));
    }
}
