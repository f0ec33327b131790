namespace DeepBaize.Core.Table;

/// <summary>
/// Balls at rest on a table, checked: each ball once, none overlapping, each where it can rest. The white comes first if it is there.
/// </summary>
public sealed class Layout
{
    private readonly PlacedBall[] _balls;

    private Layout(PlacedBall[] balls) => _balls = balls;

    private long _touching = -1;

    /// <summary>Which balls touch another, a bit for each slot (<see cref="Jitter.Near"/>).</summary>
    public uint Touching
    {
        get
        {
            // Asked by several threads at once, they find the same.
            if (Volatile.Read(ref _touching) < 0)
                Volatile.Write(ref _touching, Jitter.Touching(_balls));
            return (uint)_touching;
        }
    }

    /// <summary>
    /// Which of two tables that are mirror images of one another this is: 1 or −1, by the first ball off the middle line. What is drawn
    /// by chance is mirrored with it, so that a mirrored question has the mirrored answer.
    /// </summary>
    public int Mirror
    {
        get
        {
            foreach (ref readonly var ball in _balls.AsSpan())
                if (Math.Abs(ball.Y - Dimensions.Width / 2) > 1e-6)
                    return ball.Y < Dimensions.Width / 2 ? 1 : -1;
            return 1;
        }
    }

    /// <summary>The balls, the white first.</summary>
    public IReadOnlyList<PlacedBall> Balls => _balls;

    /// <summary>The balls as a span.</summary>
    public ReadOnlySpan<PlacedBall> AsSpan() => _balls;

    /// <summary>The white.</summary>
    public PlacedBall White => _balls[0];

    /// <summary>The slot of a ball, or −1.</summary>
    public int SlotOf(Ball ball) => Array.FindIndex(_balls, b => b.Ball == ball);

    /// <summary>A checked layout.</summary>
    /// <param name="balls">Ids with coordinates in metres.</param>
    /// <param name="shape">The table they lie on.</param>
    /// <param name="path">Where the list stands in the input, for the errors.</param>
    /// <exception cref="InputException">
    /// Unknown or repeated ids, no white, a coordinate that is no number or no place to rest, an overlap above 1 µm.
    /// </exception>
    public static Layout Create(IReadOnlyList<(string? Id, double X, double Y)> balls, TableShape shape, string path = "balls")
    {
        var placed = Check(balls, shape, path);
        if (placed.All(p => p.Ball != Ball.White))
            throw new InputException(path, "There is no white.", "one ball with the id white");
        return new([.. placed.OrderBy(b => b.Ball.Index)]);
    }

    /// <summary>Balls that a stroke has brought to rest, taken as they lie; one of them is the white.</summary>
    public static Layout OfRest(IEnumerable<PlacedBall> balls)
    {
        PlacedBall[] sorted = [.. balls];
        // They come nearly in order: only what has been spotted is out of its place.
        for (var i = 1; i < sorted.Length; i++)
            for (var k = i; k > 0 && sorted[k - 1].Ball.Index > sorted[k].Ball.Index; k--)
                (sorted[k - 1], sorted[k]) = (sorted[k], sorted[k - 1]);
        return new(sorted);
    }

    /// <summary>Checks balls that need not include the white; returns them in the order given.</summary>
    /// <exception cref="InputException">As <see cref="Create"/>.</exception>
    public static IReadOnlyList<PlacedBall> Check(
        IReadOnlyList<(string? Id, double X, double Y)> balls,
        TableShape shape,
        string path = "balls"
    )
    {
        if (balls.Count > Ball.Count)
            throw new InputException(path, $"There are {balls.Count} balls.", $"at most {Ball.Count}: white, six colours, fifteen reds");
        var checks = new Checks(path);
        var placed = new List<PlacedBall>();
        for (var i = 0; i < balls.Count; i++)
            if (CheckedBall(balls[i], i, placed, shape, checks) is { } ball)
                placed.Add(ball);
        checks.ThrowIfAny();
        return placed;
    }

    /// <summary>One of them; null if it is not to be looked at further.</summary>
    private static PlacedBall? CheckedBall(
        (string? Id, double X, double Y) entry,
        int i,
        List<PlacedBall> placed,
        TableShape shape,
        Checks checks
    )
    {
        var (id, x, y) = entry;
        if (!Ball.TryParse(id, out var ball))
        {
            checks.That(false, $"[{i}].id", $"There is no ball called '{Shorten(id)}'.", Ball.AllowedIds);
            return null;
        }
        if (placed.Any(p => p.Ball == ball))
        {
            checks.That(false, $"[{i}].id", $"The {id} is there twice.", "each ball once");
            return null;
        }
        if (!CheckPlace(new(x, y), $"[{i}].", $"The {id}", shape, checks))
            return null;
        var result = new PlacedBall(ball, x, y);
        foreach (var other in placed)
        {
            var gap = other.Gap(result.At);
            checks.That(
                gap >= -TableShape.InputTolerance,
                $"[{i}]",
                $"The {id} overlaps the {other.Ball} by {-gap * 1000:0.###} mm.",
                $"centres at least {2 * Dimensions.BallRadius} m apart"
            );
        }
        return result;
    }

    /// <summary>Whether a ball can lie there: the one rule for every place that is sent.</summary>
    /// <param name="prefix">Of the fields x and y, with its point.</param>
    /// <param name="who">What is placed, to begin a sentence.</param>
    public static bool CheckPlace(Vec2 place, string prefix, string who, TableShape shape, Checks checks)
    {
        const double beyond = 0.1;
        const double r = Dimensions.BallRadius;
        var (inX, inY) = (
            place.X >= -beyond && place.X <= Dimensions.Length + beyond,
            place.Y >= -beyond && place.Y <= Dimensions.Width + beyond
        );
        checks.That(inX, $"{prefix}x", $"{who} is off the table.", $"{r} to {Dimensions.Length - r} m");
        checks.That(inY, $"{prefix}y", $"{who} is off the table.", $"{r} to {Dimensions.Width - r} m");
        if (!inX || !inY)
            return false;
        if (shape.CanRest(place))
            return true;
        // The coordinate that is farther off the bed is named.
        var field = Math.Min(place.X, Dimensions.Length - place.X) <= Math.Min(place.Y, Dimensions.Width - place.Y) ? "x" : "y";
        checks.That(
            false,
            $"{prefix}{field}",
            $"{who} cannot rest at ({place.X}, {place.Y}): it is in a cushion, a jaw or a pocket.",
            $"x {r} to {Dimensions.Length - r} m, y {r} to {Dimensions.Width - r} m, or a pocket's mouth clear of its jaws and drop"
        );
        return false;
    }

    private static string Shorten(string? text) =>
        text is null ? ""
        : text.Length <= 40 ? text
        : text[..40] + "…";
}
