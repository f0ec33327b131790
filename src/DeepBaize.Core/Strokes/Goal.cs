using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Strokes;

/// <summary>What the white is to do after the pot.</summary>
public abstract record Goal
{
    /// <summary>Whether a shot that was recorded does it.</summary>
    public abstract bool IsMet(ShotRecord record, Simulator after, Layout layout);

    /// <summary>
    /// How far a shot is from doing it, m; 0 at its best. Falls steadily on the way there, so that a search can follow it.
    /// </summary>
    public abstract double Distance(ShotRecord record, Simulator after, Layout layout);

    /// <summary>Slot of the ball that the white is to run into, or −1.</summary>
    public virtual int Meant => -1;
}

/// <summary>The white stops within a circle.</summary>
public sealed record StopIn : Goal
{
    /// <summary>Bounds of the area, m across.</summary>
    public const double Smallest = 0.03,
        Largest = 1.0;

    private StopIn(Circle area) => Area = area;

    /// <summary>The area in which the white should stop, m.</summary>
    public Circle Area { get; }

    /// <exception cref="InputException">Off the table, or a radius out of range.</exception>
    public static StopIn Create(double x, double y, double radius, string path = "goal")
    {
        var checks = new Checks(path);
        checks.Range("x", x, 0, Length, " m");
        checks.Range("y", y, 0, Width, " m");
        checks.Range("radius", radius, Smallest, Largest, " m");
        checks.ThrowIfAny();
        return new(new Circle(x, y, radius));
    }

    /// <summary>Whether the white stopped in the area.</summary>
    public override bool IsMet(ShotRecord record, Simulator after, Layout layout) => after.IsOnTable(0) && Off(after) <= Area.Radius;

    /// <summary>Returns the distance of the white from the area, m.</summary>
    public override double Distance(ShotRecord record, Simulator after, Layout layout) => after.IsOnTable(0) ? Off(after) : Length;

    private double Off(Simulator after) => Area.Centre.DistanceTo(after.At(0));
}

/// <summary>The white runs into a ball after its first contact: the first it meets then. Without a pot it may meet it first.</summary>
public sealed record Cannon : Goal
{
    /// <summary>Tolerance of the fullness, and the greatest speed of contact, m/s.</summary>
    public const double FullnessEitherWay = 0.2,
        FastestThereIs = 12;

    private Cannon(int slot, bool mayBeFirst, double? fullness, double slowest, double fastest) =>
        (Slot, MayBeFirst, Fullness, Slowest, Fastest) = (slot, mayBeFirst, fullness, slowest, fastest);

    private bool MayBeFirst { get; }

    /// <summary>Slot of the ball that the white should run into.</summary>
    public int Slot { get; }

    /// <summary>How full, 0 to 1, within <see cref="FullnessEitherWay"/>; null for any.</summary>
    public double? Fullness { get; }

    /// <summary>m/s at the contact.</summary>
    public double Slowest { get; }

    /// <summary>m/s at the contact.</summary>
    public double Fastest { get; }

    /// <exception cref="InputException">The white itself or the ball that is potted, or a figure out of range.</exception>
    public static Cannon Create(
        int slot,
        Pot? pot,
        double? fullness = null,
        double slowest = 0,
        double fastest = FastestThereIs,
        string path = "goal"
    )
    {
        var checks = new Checks(path);
        checks.That(
            slot >= 1 && slot != pot?.Slot && slot != pot?.Struck,
            "ball",
            "The white cannot be sent on to that ball.",
            "an object ball on the table other than the one that is potted"
        );
        if (fullness is { } f)
            checks.Range("fullness", f, 0, 1);
        checks.That(slowest >= 0 && slowest < fastest, "slowest", $"{slowest} is out of range.", $"0 to {fastest} m/s");
        checks.That(fastest <= FastestThereIs, "fastest", $"{fastest} is out of range.", $"up to {FastestThereIs} m/s");
        checks.ThrowIfAny();
        return new(slot, pot is null, fullness, slowest, fastest);
    }

    /// <summary>Slot of the ball that the white should run into.</summary>
    public override int Meant => Slot;

    /// <summary>Whether the white met the ball as wanted.</summary>
    public override bool IsMet(ShotRecord record, Simulator after, Layout layout) =>
        Contact(record, layout) is { } c
        && (Fullness is not { } f || Math.Abs(c.Fullness - f) <= FullnessEitherWay)
        && c.Speed >= Slowest
        && c.Speed <= Fastest;

    /// <summary>Returns how far the white was from meeting the ball as wanted, m.</summary>
    public override double Distance(ShotRecord record, Simulator after, Layout layout)
    {
        // A wrong fullness or speed is told as a distance of the same kind as a miss: a ball's width for all of the ball, a decimetre for 1
        // m/s.
        if (Contact(record, layout) is { } c)
            return 2 * BallRadius * Math.Abs(c.Fullness - (Fullness ?? Math.Max(c.Fullness, 0.5)))
                + 0.1 * Math.Max(0, Math.Max(Slowest - c.Speed, c.Speed - Fastest));
        return 2 * BallRadius + Math.Max(0, Gap(record, layout.Balls[Slot]));
    }

    /// <summary>How full and how fast (m/s) the white meets the ball; null if it does not, or meets another before.</summary>
    public (double Fullness, double Speed)? Contact(ShotRecord record, Layout layout)
    {
        var isFirst = true;
        foreach (var e in record.Events)
        {
            if (e.Kind == ShotEventKind.Pot && e.Ball == 0)
                return null;
            if (!e.IsOfWhiteWithBall)
                continue;
            if (isFirst && !(MayBeFirst && e.Ball + e.Other == Slot))
            {
                isFirst = false;
                continue;
            }
            if (e.Ball + e.Other != Slot)
                return null;
            return Contacts.Met(record, layout, e);
        }
        return null;
    }

    /// <summary>Least clear distance of the white's way after its first contact from the ball where it lies, m.</summary>
    private static double Gap(ShotRecord record, in PlacedBall ball) =>
        Contacts.First(record) is { } first ? Contacts.Clearance(record, ball, first.Time) : Length;
}
