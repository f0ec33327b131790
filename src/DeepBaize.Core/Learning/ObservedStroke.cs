using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Learning;

/// <summary>Where a ball was seen at the end of a stroke.</summary>
/// <param name="Slot">Of the ball in the layout.</param>
/// <param name="At">Where it lay, m; not used of a ball that was potted.</param>
/// <param name="Pocket">The pocket it went into, or null.</param>
/// <param name="IsOff">Whether it left the table.</param>
public sealed record SeenBall(int Slot, Vec2 At, Pocket? Pocket = null, bool IsOff = false)
{
    /// <summary>Whether it lay on the table.</summary>
    public bool IsOnTable => Pocket is null && !IsOff;
}

/// <summary>What was seen of a stroke.</summary>
/// <param name="Balls">Those whose end was seen; others say nothing.</param>
/// <param name="Doubt">Standard deviation of each coordinate, m.</param>
public sealed record Seen(IReadOnlyList<SeenBall> Balls, double Doubt)
{
    /// <summary>Bounds of <see cref="Doubt"/>, and what it is where nobody says, m.</summary>
    public const double LeastDoubt = 0.0005,
        MostDoubt = 0.5,
        UsualDoubt = 0.02;

    /// <summary>Whether the white was seen to meet a ball at all; null if nobody looked.</summary>
    public bool? MetABall { get; init; }

    /// <summary>On which side the direct pot that was meant was seen to be missed; null if it was not, or nobody looked.</summary>
    public MissSide? Missed { get; init; }
}

/// <summary>A stroke that was meant, and what was seen of it.</summary>
/// <param name="Pot">The pot that was meant, if any.</param>
public sealed record ObservedStroke(Layout Layout, Stroke Meant, Seen Seen, Pot? Pot = null)
{
    /// <summary>An observation that was checked.</summary>
    /// <param name="finals">Ids, places (m) and pockets of the balls that were seen; a pocket may be "off".</param>
    /// <param name="else">What else was seen: how well, whether a ball was met, on which side the pot was missed.</param>
    /// <param name="path">Where it stands in the input.</param>
    /// <exception cref="InputException">An unknown ball or pocket, a place off the table, or nothing seen.</exception>
    public static ObservedStroke Create(
        Layout layout,
        in Stroke meant,
        IReadOnlyList<(string? Id, double X, double Y, string? Pocket)> finals,
        Seen @else,
        Pot? pot = null,
        string path = "seen"
    )
    {
        meant.ToStrike("strike");
        var checks = new Checks(path);
        checks.Range("doubt", @else.Doubt, Seen.LeastDoubt, Seen.MostDoubt, " m");
        checks.That(
            finals.Count > 0 || @else.MetABall is not null || @else.Missed is not null,
            "finals",
            "Nothing was seen.",
            "one ball at least, or what else was seen"
        );
        checks.That(
            @else.Missed is null || pot is { IsPlant: false, Off: null },
            "missed",
            "No pot without a cushion or another ball was meant.",
            "null unless such a pot was meant"
        );
        var balls = new List<SeenBall>();
        for (var i = 0; i < finals.Count; i++)
        {
            var (id, x, y, pocket) = finals[i];
            var slot = Ball.TryParse(id, out var ball) ? layout.SlotOf(ball) : -1;
            checks.That(slot >= 0, $"finals[{i}].id", "That ball is not on the table.", "the balls of the layout");
            checks.That(balls.All(b => b.Slot != slot) || slot < 0, $"finals[{i}].id", "That ball is there twice.", "each ball once");
            var isOff = pocket == OffTable;
            Pocket? into = null;
            if (pocket is not null && !isOff)
            {
                var isPocket = Pockets.TryParse(pocket, out var which);
                checks.That(isPocket, $"finals[{i}].pocket", "There is no such pocket.", $"{Pockets.AllowedNames}, {OffTable}");
                into = which;
            }
            else if (!isOff)
            {
                checks.Range($"finals[{i}].x", x, 0, Dimensions.Length, " m");
                checks.Range($"finals[{i}].y", y, 0, Dimensions.Width, " m");
            }
            balls.Add(new(slot, new(x, y), into, isOff));
        }
        checks.ThrowIfAny();
        return new(layout, meant, @else with { Balls = balls }, pot);
    }

    private const string OffTable = "off";

    /// <summary>How this player's strokes scatter about the one that was meant.</summary>
    public Scatter ScatterOf(Skill skill, TableShape shape) => Scatter.Of(Layout, Meant, skill, shape, Pot);

    /// <summary>Standard deviations of the parts of the stroke's error, as <see cref="ErrorPart"/> orders them.</summary>
    public double[] DeviationsOf(Skill skill, TableShape shape) =>
        ErrorPart.Deviations(ScatterOf(skill, shape), AimLine.Of(Layout, Meant, new(shape), new()).Cushions);
}
