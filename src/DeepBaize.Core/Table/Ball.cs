namespace DeepBaize.Core.Table;

/// <summary>
/// One of the 22 balls: 0 white, 1 yellow … 6 black, 7–21 the reds. The id (<c>white</c>, <c>red-1</c> …)
/// is how the API and the files name it.
/// </summary>
public readonly record struct Ball
{
    /// <summary>Number of balls, the white among them.</summary>
    public const int Count = 22;

    /// <summary>Number of reds.</summary>
    public const int RedCount = 15;
    private const int FirstRed = 7;

    private static readonly string[] Ids =
    [
        "white",
        "yellow",
        "green",
        "brown",
        "blue",
        "pink",
        "black",
        .. Enumerable.Range(1, RedCount).Select(n => $"red-{n}"),
    ];

    private static readonly Dictionary<string, int> IndexById = Ids.Select((id, index) => (id, index))
        .ToDictionary(p => p.id, p => p.index, StringComparer.Ordinal);

    private Ball(int index) => Index = index;

    /// <summary>0 white, 1–6 the colours in the order of their value less one, 7–21 the reds.</summary>
    public int Index { get; }

    /// <summary>The cue ball.</summary>
    public static readonly Ball White = new(0);

    /// <summary>The yellow, 2 points.</summary>
    public static readonly Ball Yellow = new(1);

    /// <summary>The green, 3 points.</summary>
    public static readonly Ball Green = new(2);

    /// <summary>The brown, 4 points.</summary>
    public static readonly Ball Brown = new(3);

    /// <summary>The blue, 5 points.</summary>
    public static readonly Ball Blue = new(4);

    /// <summary>The pink, 6 points.</summary>
    public static readonly Ball Pink = new(5);

    /// <summary>The black, 7 points.</summary>
    public static readonly Ball Black = new(6);

    /// <summary>Yellow, green, brown, blue, pink, black.</summary>
    public static IReadOnlyList<Ball> Colours { get; } = [Yellow, Green, Brown, Blue, Pink, Black];

    /// <summary>What an unknown id is answered with.</summary>
    public const string AllowedIds = "white, yellow, green, brown, blue, pink, black, red-1 to red-15";

    /// <summary>The name in files and in the API.</summary>
    public string Id => Ids[Index];

    /// <summary>Whether it is a red.</summary>
    public bool IsRed => Index >= FirstRed;

    /// <summary>Whether it is a colour.</summary>
    public bool IsColour => Index is > 0 and < FirstRed;

    /// <summary>The red of this number, 1–15.</summary>
    /// <exception cref="ArgumentOutOfRangeException">The number is not 1–15.</exception>
    public static Ball Red(int number) =>
        number is >= 1 and <= RedCount
            ? new(FirstRed + number - 1)
            : throw new ArgumentOutOfRangeException(nameof(number), number, "A red is numbered 1 to 15.");

    /// <summary>The ball of this index, 0–21.</summary>
    public static Ball FromIndex(int index) => (uint)index < Count ? new(index) : throw new ArgumentOutOfRangeException(nameof(index));

    /// <summary>Finds a ball by its name; false if there is none.</summary>
    public static bool TryParse(string? id, out Ball ball)
    {
        var known = IndexById.TryGetValue(id ?? "", out var index);
        ball = new(index);
        return known;
    }

    /// <summary>Returns the name.</summary>
    public override string ToString() => Id;
}

/// <summary>A ball and where its centre is: metres, x up the table from the baulk cushion, y from the yellow's side.</summary>
public readonly record struct PlacedBall(Ball Ball, Vec2 At)
{
    /// <summary>Creates a ball at a place, m.</summary>
    public PlacedBall(Ball ball, double x, double y)
        : this(ball, new(x, y)) { }

    /// <summary>x of the centre, m.</summary>
    public double X => At.X;

    /// <summary>y of the centre, m.</summary>
    public double Y => At.Y;

    /// <summary>Clear distance from a ball whose centre is there, m; negative if they overlap.</summary>
    public double Gap(Vec2 other) => other.DistanceTo(At) - 2 * Dimensions.BallRadius;

    /// <summary>Clear distance from a ball whose centre goes along a straight way, m; negative if this one is in its way.</summary>
    public double Gap(in Segment way) => way.DistanceTo(At) - 2 * Dimensions.BallRadius;

    /// <summary>
    /// Whether a ball whose centre goes along a straight way passes this one. One that it touches, if by rounding it seems to overlap a
    /// little,
    /// is in its way only where it stands before it.
    /// </summary>
    public bool IsClearOf(in Segment way) => Gap(way) >= -TableShape.InputTolerance;
}
