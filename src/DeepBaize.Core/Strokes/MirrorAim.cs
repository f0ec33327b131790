using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>
/// The plain aim off cushions, as in mirrors, and the construction that players use for it. It holds where balls rebound as light does;
/// every table's own cushions differ.
/// </summary>
/// <param name="AimDegrees">Of the white's way, counter-clockwise from straight up the table.</param>
/// <param name="Points">The white's centre from where it lies, at each cushion, and at the target's centre; m.</param>
/// <param name="FromPocket">How far along the first cushion from the nearest pocket the white's centre meets it, m.</param>
/// <param name="Pocket">That pocket.</param>
/// <param name="Known">
/// Off two cushions that meet in a corner: the line from half-way between white and target to the corner, which the white's own way is
/// parallel to; m. Else null.
/// </param>
/// <param name="Shift">How far the white's way lies beside that line, m.</param>
public sealed record MirrorAim(
    double AimDegrees,
    IReadOnlyList<Vec2> Points,
    double FromPocket,
    Pocket Pocket,
    Segment? Known,
    double Shift
)
{
    /// <param name="cushions">In the order in which the white meets them, one to four.</param>
    /// <returns>Null if the straight lines of the mirror images do not meet the cushions in this order, or meet one at a pocket.</returns>
    public static MirrorAim? Of(Vec2 white, Vec2 target, IReadOnlyList<Cushion> cushions, TableShape shape)
    {
        // The target's image in the last cushion, that one's in the one before, and so on.
        var images = new Vec2[cushions.Count + 1];
        images[^1] = target;
        for (var i = cushions.Count - 1; i >= 0; i--)
            images[i] = cushions[i].Mirror(images[i + 1]);
        var points = new List<Vec2> { white };
        var at = white;
        for (var i = 0; i < cushions.Count; i++)
        {
            if (Meet(at, images[i], cushions[i]) is not { } next || !IsOnNose(next, cushions[i], shape))
                return null;
            points.Add(at = next);
        }
        points.Add(target);
        var aim = (images[0] - white).Direction;
        var (fromPocket, pocket) = FromPocketOf(points[1], cushions[0]);
        Segment? known = null;
        var shift = 0.0;
        if (cushions.Count == 2 && Corner(cushions[0], cushions[1]) is { } corner)
        {
            // Two mirrors at right angles turn a way back parallel to itself: so the line from half-way to the corner has the white's
            // direction.
            var middle = (white + target) / 2;
            known = new(middle, corner);
            shift = Math.Abs((white - middle).Cross(aim.Unit));
        }
        return new(aim.Degrees, points, fromPocket, pocket, known, shift);
    }

    /// <summary>Where a straight line meets the line that a ball's centre keeps from a cushion; null if it runs the other way.</summary>
    private static Vec2? Meet(Vec2 from, Vec2 to, Cushion cushion)
    {
        var (a, b) = (cushion.Distance(from) - BallRadius, cushion.Distance(to) - BallRadius);
        if (a < -1e-9 || b >= a || b > 0)
            return null;
        return from + a / (a - b) * (to - from);
    }

    private static bool IsOnNose(Vec2 p, Cushion cushion, TableShape shape)
    {
        const double hair = 1e-9;
        if (Cushions.Clearance(p) < -hair)
            return false;
        return cushion.IsEnd()
            ? p.Y > shape.CornerNoseStart && p.Y < Width - shape.CornerNoseStart
            : p.X > shape.CornerNoseStart && p.X < Length - shape.CornerNoseStart && Math.Abs(p.X - Length / 2) > shape.MiddleNoseEnd;
    }

    private static Vec2? Corner(Cushion a, Cushion b)
    {
        var (end, side) = a.IsEnd() ? (a, b) : (b, a);
        if (!end.IsEnd() || side.IsEnd())
            return null;
        return new(end == Cushion.Top ? Length - BallRadius : BallRadius, side == Cushion.GreenSide ? Width - BallRadius : BallRadius);
    }

    /// <summary>Along a cushion, from the pocket that is nearest, m.</summary>
    public static (double Distance, Pocket Pocket) FromPocketOf(Vec2 p, Cushion cushion)
    {
        var pockets = cushion switch
        {
            Cushion.Baulk => new[] { (p.Y, Pocket.Yellow), (Width - p.Y, Pocket.Green) },
            Cushion.Top => [(p.Y, Pocket.YellowTop), (Width - p.Y, Pocket.GreenTop)],
            Cushion.YellowSide =>
            [
                (p.X, Pocket.Yellow),
                (Math.Abs(p.X - Length / 2), Pocket.YellowMiddle),
                (Length - p.X, Pocket.YellowTop),
            ],
            _ => [(p.X, Pocket.Green), (Math.Abs(p.X - Length / 2), Pocket.GreenMiddle), (Length - p.X, Pocket.GreenTop)],
        };
        return pockets.MinBy(o => o.Item1);
    }

    /// <summary>All orders of one to a number of cushions, none twice running.</summary>
    public static IEnumerable<IReadOnlyList<Cushion>> Orders(int most)
    {
        List<Cushion[]> now =
        [
            [],
        ];
        for (var n = 1; n <= most; n++)
        {
            now = [.. now.SelectMany(o => Cushions.All.Where(c => o.Length == 0 || o[^1] != c).Select(c => o.Append(c).ToArray()))];
            foreach (var order in now)
                yield return order;
        }
    }
}
