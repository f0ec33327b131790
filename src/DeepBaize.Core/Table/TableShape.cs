using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Table;

/// <summary>
/// A pocket's two jaw arcs and its drop.
/// </summary>
/// <param name="Mouth">The axis-aligned box outside which no ball's centre can meet this pocket's jaws or drop.</param>
public sealed record PocketShape(Pocket Pocket, Circle JawA, Circle JawB, Circle Drop, Box Mouth)
{
    /// <summary>Where a ball's centre touches jaw A at the very edge of the drop; beyond it the jaw cannot keep a ball out.</summary>
    public Vec2 LipA { get; } = Lip(Pocket, JawA, Drop);

    /// <summary>Where jaw B ends and the nose begins, m.</summary>
    public Vec2 LipB { get; } = Lip(Pocket, JawB, Drop);

    private static Vec2 Lip(Pocket pocket, in Circle jaw, in Circle drop)
    {
        var inward = TableShape.Inward(pocket);
        return Circle.Crossings(jaw with { Radius = jaw.Radius + BallRadius }, drop).MaxBy(p => p.Dot(inward));
    }
}

/// <summary>A straight cushion nose between two jaws, on a line of constant x or y.</summary>
public readonly record struct Nose(Vec2 From, Vec2 To)
{
    /// <summary>Creates a nose from its ends, m.</summary>
    public Nose(double x1, double y1, double x2, double y2)
        : this(new(x1, y1), new(x2, y2)) { }
}

/// <summary>
/// The cushions, jaws and drops of a table under given conditions: what a ball can meet. See docs/model.md, "Frame and table".
/// </summary>
public sealed class TableShape
{
    /// <summary>Two balls, or a ball and a cushion, may overlap by this much in an input (rounded coordinates); metres.</summary>
    public const double InputTolerance = 1e-6;

    /// <summary>Creates the shape of a table from its conditions.</summary>
    public TableShape(Conditions conditions)
    {
        Conditions = conditions;
        var r = conditions.CornerJawRadius;
        CornerNoseStart = (conditions.CornerGap + 2 * r) / Math.Sqrt(2) - r;
        MiddleNoseEnd = conditions.MiddleGap / 2 + conditions.MiddleJawRadius;
        PocketShapes = [.. Pockets.All.Select(p => p.IsMiddle() ? Middle(p) : Corner(p))];
        var (near, far, middle) = (CornerNoseStart, Length - CornerNoseStart, Length / 2);
        Noses =
        [
            new(0, CornerNoseStart, 0, Width - CornerNoseStart),
            new(Length, CornerNoseStart, Length, Width - CornerNoseStart),
            new(near, 0, middle - MiddleNoseEnd, 0),
            new(middle + MiddleNoseEnd, 0, far, 0),
            new(near, Width, middle - MiddleNoseEnd, Width),
            new(middle + MiddleNoseEnd, Width, far, Width),
        ];
    }

    /// <summary>The conditions of the table.</summary>
    public Conditions Conditions { get; }

    /// <summary>Distance from a corner at which the straight noses begin.</summary>
    public double CornerNoseStart { get; }

    /// <summary>Distance from the middle of the long side at which the straight noses stop.</summary>
    public double MiddleNoseEnd { get; }

    /// <summary>By <see cref="Pocket"/>.</summary>
    public IReadOnlyList<PocketShape> PocketShapes { get; }

    /// <summary>The straight noses.</summary>
    public IReadOnlyList<Nose> Noses { get; }

    private PocketShape Corner(Pocket pocket)
    {
        var (r, t) = (Conditions.CornerJawRadius, CornerNoseStart);
        var back = -Conditions.CornerDropSetback / Math.Sqrt(2);
        var top = pocket is Pocket.YellowTop or Pocket.GreenTop;
        var green = pocket is Pocket.Green or Pocket.GreenTop;
        return new(
            pocket,
            Place(new(t, -r, r), top, green),
            Place(new(-r, t, r), top, green),
            Place(new(back, back, Conditions.CornerDropRadius), top, green),
            new(top ? Length - t : -1, green ? Width - t : -1, top ? Length + 1 : t, green ? Width + 1 : t)
        );
    }

    private PocketShape Middle(Pocket pocket)
    {
        var (r, t) = (Conditions.MiddleJawRadius, MiddleNoseEnd);
        var green = pocket == Pocket.GreenMiddle;
        return new(
            pocket,
            Place(new(Length / 2 - t, -r, r), false, green),
            Place(new(Length / 2 + t, -r, r), false, green),
            Place(new(Length / 2, -Conditions.MiddleDropSetback, Conditions.MiddleDropRadius), false, green),
            new(Length / 2 - t, green ? Width - BallRadius : -1, Length / 2 + t, green ? Width + 1 : BallRadius)
        );
    }

    private static Circle Place(Circle c, bool top, bool green) => new(top ? Length - c.X : c.X, green ? Width - c.Y : c.Y, c.Radius);

    /// <summary>
    /// Whether a ball's centre can rest here: clear of noses and jaws (within <see cref="InputTolerance"/>) and not in or behind a drop.
    /// </summary>
    public bool CanRest(Vec2 place)
    {
        var (x, y) = place;
        var min = BallRadius - InputTolerance;
        if (x >= min && x <= Length - min && y >= min && y <= Width - min && !NearCorner(place))
            return true;
        foreach (var pocket in PocketShapes)
        {
            if (!pocket.Mouth.Contains(place))
                continue;
            return Clear(pocket.JawA, place)
                && Clear(pocket.JawB, place)
                && place.DistanceTo(pocket.Drop.Centre) > pocket.Drop.Radius
                && InFrontOfDrop(pocket, place);
        }
        return false;
    }

    // Near a corner a centre may be a radius from both nose lines and still touch nothing but the jaws: those decide.
    private bool NearCorner(Vec2 place) =>
        Math.Min(place.X, Length - place.X) < CornerNoseStart && Math.Min(place.Y, Width - place.Y) < CornerNoseStart;

    private static bool Clear(Circle jaw, Vec2 place) => place.DistanceTo(jaw.Centre) >= jaw.Radius + BallRadius - InputTolerance;

    private static bool InFrontOfDrop(PocketShape pocket, Vec2 place) => (place - pocket.Drop.Centre).Dot(Inward(pocket.Pocket)) > 0;

    /// <summary>Unit vector from a pocket into the table, along its own middle line.</summary>
    public static Vec2 Inward(Pocket pocket)
    {
        var s = Math.Sqrt(0.5);
        return pocket switch
        {
            Pocket.Yellow => new(s, s),
            Pocket.Green => new(s, -s),
            Pocket.YellowTop => new(-s, s),
            Pocket.GreenTop => new(-s, -s),
            Pocket.YellowMiddle => new(0, 1),
            _ => new(0, -1),
        };
    }

    /// <summary>
    /// A pocket is sound if it lets a ball through its throat and the drop then spans all the room a centre has between the jaws,
    /// so that a ball on its way in cannot pass the drop by. The drop stays behind the nose line (a middle) or the corner point.
    /// </summary>
    public static IEnumerable<InputError> CheckPockets(Conditions c, string path = "conditions")
    {
        if (c.CornerDropRadius > c.CornerDropSetback)
            yield return new(
                $"{path}.cornerDropRadius",
                "The drop would reach out on to the table.",
                $"at most the setback, {c.CornerDropSetback} m"
            );
        if (c.MiddleDropRadius > c.MiddleDropSetback)
            yield return new(
                $"{path}.middleDropRadius",
                "The drop would reach out on to the table.",
                $"at most the setback, {c.MiddleDropSetback} m"
            );
        // The jaws' centres lie at this depth along the pocket's middle line, positive towards the table.
        var cornerDepth = ((c.CornerGap + 2 * c.CornerJawRadius) / Math.Sqrt(2) - 2 * c.CornerJawRadius) / Math.Sqrt(2);
        if (!DropSpansThroat(c.CornerGap, c.CornerJawRadius, cornerDepth, c.CornerDropSetback, c.CornerDropRadius))
            yield return new(
                $"{path}.cornerDropRadius",
                "A ball could roll past the drop of such a corner pocket.",
                "a drop that spans the throat: a smaller gap or setback, or a larger drop"
            );
        if (!DropSpansThroat(c.MiddleGap, c.MiddleJawRadius, -c.MiddleJawRadius, c.MiddleDropSetback, c.MiddleDropRadius))
            yield return new(
                $"{path}.middleDropRadius",
                "A ball could roll past the drop of such a middle pocket.",
                "a drop that spans the throat: a smaller gap or setback, or a larger drop"
            );
    }

    private static bool DropSpansThroat(double gap, double jawRadius, double jawDepth, double setback, double dropRadius)
    {
        const int slices = 200;
        var reach = jawRadius + BallRadius;
        for (var i = 0; i <= slices; i++)
        {
            // A slice across the pocket between the throat and the drop's centre.
            var depth = jawDepth + (-setback - jawDepth) * i / slices;
            var fromJaws = Math.Abs(depth - jawDepth);
            if (fromJaws >= reach)
                continue;
            var room = gap / 2 + jawRadius - Math.Sqrt(reach * reach - fromJaws * fromJaws);
            var fromDrop = Math.Abs(depth + setback);
            if (fromDrop < dropRadius && Math.Sqrt(dropRadius * dropRadius - fromDrop * fromDrop) > room)
                return true;
        }
        return false;
    }
}
