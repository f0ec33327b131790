using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>The white passes between two balls, after its first contact if it has one, and touches neither before.</summary>
public sealed record ThroughGap : Goal
{
    private ThroughGap(int one, int other) => (One, Other) = (one, other);

    /// <summary>Slots of the two balls.</summary>
    public int One { get; }

    /// <inheritdoc cref="One"/>
    public int Other { get; }

    /// <exception cref="InputException">Not two balls on the table, or so near one another that no ball passes.</exception>
    public static ThroughGap Create(Layout layout, int one, int other, string path = "goal")
    {
        var checks = new Checks(path);
        checks.That(one >= 1, "ball", "There is no such object ball on the table.", "an object ball that is on the table");
        checks.That(other >= 1 && other != one, "other", "A gap has two sides.", "another object ball that is on the table");
        checks.ThrowIfAny();
        checks.That(
            layout.Balls[one].At.DistanceTo(layout.Balls[other].At) > 4 * BallRadius,
            "other",
            "No ball passes between these two.",
            "two balls more than a ball's width apart"
        );
        checks.ThrowIfAny();
        return new(one, other);
    }

    /// <summary>Whether the white passed between the balls.</summary>
    public override bool IsMet(ShotRecord record, Simulator after, Layout layout) => Distance(record, after, layout) == 0;

    /// <summary>Returns the distance by which the white passed beside the clear part of the gap, m.</summary>
    public override double Distance(ShotRecord record, Simulator after, Layout layout)
    {
        var (one, other) = (layout.Balls[One].At, layout.Balls[Other].At);
        var across = (other - one).Unit;
        // The part of the line between the balls on which the white's centre clears both.
        var clear = new Segment(one + 2 * BallRadius * across, other - 2 * BallRadius * across);
        var (from, until) = (Contacts.First(record)?.Time ?? 0, double.PositiveInfinity);
        foreach (var e in record.Events)
            if (e.IsOfWhiteWithBall && (e.Ball + e.Other == One || e.Ball + e.Other == Other))
            {
                until = e.Time;
                break;
            }
        var nearest = (double)Length;
        // Touched at once: on the way there is nothing to tell but how far beside the gap it came.
        foreach (var way in Contacts.StraightWay(record, until > from ? from : 0, until))
        {
            if (clear.Crossing(way) is not null)
                return 0;
            nearest = Math.Min(nearest, Math.Min(clear.DistanceTo(way.To), Math.Min(way.DistanceTo(clear.From), way.DistanceTo(clear.To))));
        }
        return Math.Max(nearest, 1e-4);
    }
}

/// <summary>The white passes a ball by a distance, without touching it.</summary>
public sealed record PastBall : Goal
{
    /// <summary>Largest distance, m between the edges.</summary>
    public const double Farthest = 0.5;

    private PastBall(int slot, double least, double most) => (Slot, Least, Most) = (slot, least, most);

    /// <summary>Slot of the ball that is passed.</summary>
    public int Slot { get; }

    /// <summary>Bounds of the clear distance, m.</summary>
    public double Least { get; }

    /// <inheritdoc cref="Least"/>
    public double Most { get; }

    /// <exception cref="InputException">No ball on the table, or distances out of range.</exception>
    public static PastBall Create(int slot, double least, double most, string path = "goal")
    {
        var checks = new Checks(path);
        checks.That(slot >= 1, "ball", "There is no such object ball on the table.", "an object ball that is on the table");
        checks.Range("least", least, 0, Farthest, " m");
        checks.Range("most", most, Math.Max(least, 0), Farthest, " m");
        checks.ThrowIfAny();
        return new(slot, least, most);
    }

    /// <summary>Whether the white passed the ball within the bounds.</summary>
    public override bool IsMet(ShotRecord record, Simulator after, Layout layout) => Distance(record, after, layout) == 0;

    /// <summary>Returns by how much the clear distance is out of its bounds, m.</summary>
    public override double Distance(ShotRecord record, Simulator after, Layout layout)
    {
        var ball = layout.Balls[Slot];
        var isTouched = record.Events.Exists(e => e.IsOfWhiteWithBall && e.Ball + e.Other == Slot);
        // Passed, and not just approached: the nearest place is not the one at which the white stops.
        var clear = Contacts.Clearance(record, ball, Contacts.First(record)?.Time ?? 0);
        var stops = after.IsOnTable(0) ? ball.Gap(after.At(0)) : Length;
        if (isTouched)
            return Least + BallRadius;
        if (clear > stops - 1e-4)
            return Math.Max(1e-4, stops - Most) + BallRadius;
        return Math.Max(0, Math.Max(Least - clear, clear - Most));
    }
}

/// <summary>The white stops where a ball can be potted at an angle within bounds, with a clear way to it.</summary>
public sealed record OnAngle : Goal
{
    private OnAngle(int slot, Pocket pocket, double least, double most, double farthest, TableShape shape) =>
        (Slot, Pocket, Least, Most, Farthest, Shape) = (slot, pocket, least, most, farthest, shape);

    /// <summary>Slot of the next ball.</summary>
    public int Slot { get; }

    /// <summary>The pocket for it.</summary>
    public Pocket Pocket { get; }

    /// <summary>Bounds of the cut, degrees, either way.</summary>
    public double Least { get; }

    /// <inheritdoc cref="Least"/>
    public double Most { get; }

    /// <summary>Largest distance to the contact, m.</summary>
    public double Farthest { get; }

    private TableShape Shape { get; }

    /// <param name="cut">Bounds of the cut, degrees.</param>
    /// <exception cref="InputException">No other ball on the table, or a figure out of range.</exception>
    public static OnAngle Create(
        int slot,
        Pot? pot,
        Pocket pocket,
        (double Least, double Most) cut,
        double farthest,
        TableShape shape,
        string path = "goal"
    )
    {
        var checks = new Checks(path);
        checks.That(
            slot >= 1 && slot != pot?.Slot,
            "ball",
            "That ball cannot be next.",
            "an object ball on the table other than the one that is potted"
        );
        checks.Range("least", cut.Least, 0, 80, "°");
        checks.Range("most", cut.Most, Math.Max(0, cut.Least), 80, "°");
        checks.Range("farthest", farthest, 0.1, 4, " m");
        checks.ThrowIfAny();
        return new(slot, pocket, cut.Least, cut.Most, farthest, shape);
    }

    /// <summary>Whether the white stopped with such an angle.</summary>
    public override bool IsMet(ShotRecord record, Simulator after, Layout layout) => Distance(record, after, layout) == 0;

    /// <summary>Returns how far the white is from such a place, m.</summary>
    public override double Distance(ShotRecord record, Simulator after, Layout layout)
    {
        if (!after.IsOnTable(0) || !after.IsOnTable(Slot))
            return Length;
        var (white, ball) = (new PlacedBall(Ball.White, after.At(0)), new PlacedBall(layout.Balls[Slot].Ball, after.At(Slot)));
        var cut = Cut.Of(white, ball, Pocket, Shape);
        var off = Math.Abs(cut.CutDegrees) is var angle ? Math.Max(0, Math.Max(Least - angle, angle - Most)) * Math.PI / 180 : 0;
        var miss = off * cut.CueBallDistance + Math.Max(0, cut.CueBallDistance - Farthest);
        if (cut.Fault != CutFault.None)
            miss += BallRadius;
        var (way, pot) = (new Segment(white.At, cut.Ghost), cut.First);
        for (var i = 1; i < layout.Balls.Count; i++)
        {
            if (i == Slot || !after.IsOnTable(i))
                continue;
            var other = new PlacedBall(layout.Balls[i].Ball, after.At(i));
            miss += Math.Max(0, -Math.Min(other.Gap(way), other.Gap(pot)));
        }
        return miss;
    }
}

/// <summary>The white comes off a cushion at a place of it, as the first cushion after its first contact.</summary>
public sealed record OffCushion : Goal
{
    private OffCushion(Cushion cushion, double at, double within) => (Cushion, At, Within) = (cushion, at, within);

    /// <summary>The cushion.</summary>
    public Cushion Cushion { get; }

    /// <summary>Where along it: y of the ends' cushions, x of the sides', m; and how far off it may be.</summary>
    public double At { get; }

    /// <inheritdoc cref="At"/>
    public double Within { get; }

    /// <exception cref="InputException">A figure out of range.</exception>
    public static OffCushion Create(Cushion cushion, double at, double within, string path = "goal")
    {
        var checks = new Checks(path);
        checks.Range("at", at, 0, cushion.IsEnd() ? Width : Length, " m");
        checks.Range("within", within, 0.01, 1, " m");
        checks.ThrowIfAny();
        return new(cushion, at, within);
    }

    /// <summary>Whether the white came off the place.</summary>
    public override bool IsMet(ShotRecord record, Simulator after, Layout layout) => Distance(record, after, layout) == 0;

    /// <summary>Returns how far beside the place the white met the cushion, m.</summary>
    public override double Distance(ShotRecord record, Simulator after, Layout layout)
    {
        var from = Contacts.First(record)?.Time ?? 0;
        var first = record.Events.Find(e => e is { Ball: 0, Kind: ShotEventKind.Cushion or ShotEventKind.Jaw } && e.Time > from);
        var place = Cushion switch
        {
            Cushion.Top => new Vec2(Length, At),
            Cushion.Baulk => new Vec2(0, At),
            Cushion.GreenSide => new Vec2(At, Width),
            _ => new Vec2(At, 0),
        };
        if (first.Kind == ShotEventKind.Cushion && Cushions.Nearest(first.At) == Cushion)
            return Math.Max(0, Math.Abs(Cushion.IsEnd() ? first.At.Y - At : first.At.X - At) - Within);
        return Math.Max(1e-4, Contacts.StraightWay(record, from).Select(s => s.DistanceTo(place)).DefaultIfEmpty(Length).Min());
    }
}

/// <summary>After the stroke a ball has a clear way into a pocket: the white, or what it sends, has moved what was in the way.</summary>
public sealed record Frees : Goal
{
    private Frees(int slot, Pocket pocket, TableShape shape) => (Slot, Pocket, Shape) = (slot, pocket, shape);

    /// <summary>Slot of the ball that is to go.</summary>
    public int Slot { get; }

    /// <summary>Its pocket.</summary>
    public Pocket Pocket { get; }

    private TableShape Shape { get; }

    /// <exception cref="InputException">No other ball on the table.</exception>
    public static Frees Create(int slot, Pot? pot, Pocket pocket, TableShape shape, string path = "goal")
    {
        var checks = new Checks(path);
        checks.That(
            slot >= 1 && slot != pot?.Slot,
            "ball",
            "That ball cannot be freed.",
            "an object ball on the table other than the one that is potted"
        );
        checks.ThrowIfAny();
        return new(slot, pocket, shape);
    }

    /// <summary>Whether the ball's way is clear after the stroke.</summary>
    public override bool IsMet(ShotRecord record, Simulator after, Layout layout) => Distance(record, after, layout) == 0;

    /// <summary>Returns by how much the others stand in the ball's way, m.</summary>
    public override double Distance(ShotRecord record, Simulator after, Layout layout)
    {
        if (!after.IsOnTable(Slot))
            return Length;
        var at = after.At(Slot);
        var (direction, opening, _) = PotWindow.Into(Shape, Pocket, at);
        var way = new Segment(at, at + at.DistanceTo(Shape.PocketShapes[(int)Pocket].Drop.Centre) * direction.Unit);
        var miss = opening.Radians > 0 ? 0 : BallRadius;
        for (var i = 1; i < layout.Balls.Count; i++)
            if (i != Slot && after.IsOnTable(i))
                miss += Math.Max(0, -new PlacedBall(layout.Balls[i].Ball, after.At(i)).Gap(way));
        return miss;
    }
}

/// <summary>The white stops a distance from where it met the first ball.</summary>
public sealed record Drift : Goal
{
    private Drift(double by, double within) => (By, Within) = (by, within);

    /// <summary>Distance, and how far off it may be, m.</summary>
    public double By { get; }

    /// <inheritdoc cref="By"/>
    public double Within { get; }

    /// <exception cref="InputException">A figure out of range.</exception>
    public static Drift Create(double by, double within, string path = "goal")
    {
        var checks = new Checks(path);
        checks.Range("by", by, 0, Length, " m");
        checks.Range("within", within, 0.01, 1, " m");
        checks.ThrowIfAny();
        return new(by, within);
    }

    /// <summary>Whether the white stopped so far from the contact.</summary>
    public override bool IsMet(ShotRecord record, Simulator after, Layout layout) => Distance(record, after, layout) == 0;

    /// <summary>Returns by how much the distance is off, m.</summary>
    public override double Distance(ShotRecord record, Simulator after, Layout layout)
    {
        if (Contacts.First(record) is not { } first || !after.IsOnTable(0))
            return Length;
        var at = record.Pieces.FindLast(p => p.Ball == 0 && p.End <= first.Time + 1e-9) is { End: > 0 } piece ? piece.To : layout.White.At;
        return Math.Max(0, Math.Abs(after.At(0).DistanceTo(at) - By) - Within);
    }
}

/// <summary>The white meets no cushion after its first contact.</summary>
public sealed record OffNoCushion : Goal
{
    /// <summary>What a cushion counts as a distance, m.</summary>
    private const double PerCushion = 0.2;

    /// <summary>Whether it met none.</summary>
    public override bool IsMet(ShotRecord record, Simulator after, Layout layout) => Distance(record, after, layout) == 0;

    /// <summary>Returns a distance for each cushion met.</summary>
    public override double Distance(ShotRecord record, Simulator after, Layout layout)
    {
        var from = Contacts.First(record)?.Time ?? 0;
        return PerCushion * record.Events.Count(e => e is { Ball: 0, Kind: ShotEventKind.Cushion or ShotEventKind.Jaw } && e.Time > from);
    }
}

/// <summary>Several goals: all of them, or one of them.</summary>
public sealed record Combined : Goal
{
    /// <summary>Largest number of goals that are combined.</summary>
    public const int Most = 4;

    private Combined(IReadOnlyList<Goal> goals, bool isAll) => (Goals, IsAll) = (goals, isAll);

    /// <summary>The goals.</summary>
    public IReadOnlyList<Goal> Goals { get; }

    /// <summary>Whether all are asked for; else one is enough.</summary>
    public bool IsAll { get; }

    /// <exception cref="InputException">None, or too many.</exception>
    public static Combined Create(IReadOnlyList<Goal> goals, bool isAll, string path = "goal")
    {
        var checks = new Checks(path);
        checks.That(goals.Count is >= 1 and <= Most, isAll ? "all" : "any", $"There are {goals.Count} goals.", $"1 to {Most}");
        checks.ThrowIfAny();
        return new(goals, isAll);
    }

    /// <summary>Slot of the first ball among them that the white is to run into, or −1.</summary>
    public override int Meant => Goals.Select(g => g.Meant).FirstOrDefault(m => m >= 0, -1);

    /// <summary>Whether all of them, or one of them, is met.</summary>
    public override bool IsMet(ShotRecord record, Simulator after, Layout layout) =>
        IsAll ? Goals.All(g => g.IsMet(record, after, layout)) : Goals.Any(g => g.IsMet(record, after, layout));

    /// <summary>Returns the distances together, or the least of them, m.</summary>
    public override double Distance(ShotRecord record, Simulator after, Layout layout)
    {
        var distances = Goals.Select(g => g.Distance(record, after, layout));
        return IsAll ? distances.Sum() : distances.Min();
    }
}
