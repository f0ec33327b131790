namespace DeepBaize.Core.Table;

/// <summary>
/// Balls at rest on a table, checked: each ball once, none overlapping, each where it can rest. The white comes first if it is there.
/// </summary>
public sealed class Layout
{
    private readonly PlacedBall[] _balls;

    private Layout(PlacedBall[] balls) => _balls = balls;

    public IReadOnlyList<PlacedBall> Balls => _balls;

    public ReadOnlySpan<PlacedBall> AsSpan() => _balls;

    public PlacedBall White => _balls[0];

    /// <summary>The slot of a ball, or −1.</summary>
    public int SlotOf(Ball ball) => Array.FindIndex(_balls, b => b.Ball == ball);

    /// <summary>A checked layout.</summary>
    /// <param name="balls">Ids with coordinates in metres.</param>
    /// <param name="shape">The table they lie on.</param>
    /// <param name="path">Where the list stands in the input, for the errors.</param>
    /// <exception cref="InputException">Unknown or repeated ids, no white, a coordinate that is no number or no place to rest, an overlap above 1 µm.</exception>
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
            for (var k = i; k > 0 && sorted[k - 1].Ball.Index > sorted[k].Ball.Index; k--) (sorted[k - 1], sorted[k]) = (sorted[k], sorted[k - 1]);
        return new(sorted);
    }

    /// <summary>The same checks for balls that need not include the white, in the order given.</summary>
    /// <exception cref="InputException">As <see cref="Create"/>.</exception>
    public static IReadOnlyList<PlacedBall> Check(IReadOnlyList<(string? Id, double X, double Y)> balls, TableShape shape, string path = "balls")
    {
        var errors = new List<InputError>();
        var placed = new List<PlacedBall>();
        if (balls.Count > Ball.Count)
            throw new InputException(path, $"There are {balls.Count} balls.", $"at most {Ball.Count}: white, six colours, fifteen reds");
        for (var i = 0; i < balls.Count; i++)
        {
            var (id, x, y) = balls[i];
            if (!Ball.TryParse(id, out var ball))
            {
                errors.Add(new($"{path}[{i}].id", $"There is no ball called '{Shorten(id)}'.", Ball.AllowedIds));
                continue;
            }
            if (placed.Any(p => p.Ball == ball))
            {
                errors.Add(new($"{path}[{i}].id", $"The {id} is there twice.", "each ball once"));
                continue;
            }
            var onTable = true;
            if (!(x >= -0.1 && x <= Dimensions.Length + 0.1))
            {
                errors.Add(new($"{path}[{i}].x", $"The {id} is off the table.", $"{Dimensions.BallRadius} to {Dimensions.Length - Dimensions.BallRadius} m"));
                onTable = false;
            }
            if (!(y >= -0.1 && y <= Dimensions.Width + 0.1))
            {
                errors.Add(new($"{path}[{i}].y", $"The {id} is off the table.", $"{Dimensions.BallRadius} to {Dimensions.Width - Dimensions.BallRadius} m"));
                onTable = false;
            }
            if (!onTable) continue;
            if (!shape.CanRest(x, y))
            {
                // Name the coordinate that is farther off the bed.
                var (offX, offY) = (Math.Min(x, Dimensions.Length - x), Math.Min(y, Dimensions.Width - y));
                var field = offX <= offY ? "x" : "y";
                errors.Add(new($"{path}[{i}].{field}", $"The {id} cannot rest at ({x}, {y}): it is in a cushion, a jaw or a pocket.",
                    $"x {Dimensions.BallRadius} to {Dimensions.Length - Dimensions.BallRadius} m, y {Dimensions.BallRadius} to {Dimensions.Width - Dimensions.BallRadius} m, or a pocket's mouth clear of its jaws and drop"));
                continue;
            }
            foreach (var other in placed)
            {
                var gap = Gap(x, y, other);
                if (gap < -TableShape.InputTolerance)
                    errors.Add(new($"{path}[{i}]", $"The {id} overlaps the {other.Ball} by {-gap * 1000:0.###} mm.", $"centres at least {2 * Dimensions.BallRadius} m apart"));
            }
            placed.Add(new(ball, x, y));
        }
        InputException.ThrowIfAny(errors);
        return placed;
    }

    /// <summary>Clear distance between a ball centred at (x, y) and another, m; negative if they overlap.</summary>
    public static double Gap(double x, double y, in PlacedBall other) =>
        Math.Sqrt((x - other.X) * (x - other.X) + (y - other.Y) * (y - other.Y)) - 2 * Dimensions.BallRadius;

    /// <summary>Clear distance between a ball whose centre goes along a line and another that lies still, m; negative if it is in the way.</summary>
    public static double GapFrom(double x1, double y1, double x2, double y2, in PlacedBall still) =>
        FromLine(x1, y1, x2, y2, still.X, still.Y) - 2 * Dimensions.BallRadius;

    /// <summary>Distance of a point from the straight line between two others, m.</summary>
    public static double FromLine(double x1, double y1, double x2, double y2, double x, double y)
    {
        var (dx, dy) = (x2 - x1, y2 - y1);
        var square = dx * dx + dy * dy;
        var along = square == 0 ? 0 : Math.Clamp(((x - x1) * dx + (y - y1) * dy) / square, 0, 1);
        var (px, py) = (x1 + along * dx - x, y1 + along * dy - y);
        return Math.Sqrt(px * px + py * py);
    }

    private static string Shorten(string? text) => text is null ? "" : text.Length <= 40 ? text : text[..40] + "…";
}
