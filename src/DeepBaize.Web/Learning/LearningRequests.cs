using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Learning;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Players;
using DeepBaize.Web.Simulation;

namespace DeepBaize.Web.Learning;

/// <summary>Where a ball was seen at the end of a stroke; m.</summary>
public sealed record SeenBallEntry
{
    public required string Id { get; init; }
    public double X { get; init; }
    public double Y { get; init; }

    [Description("The pocket it went into, off if it left the table, or null; then x and y do not count.")]
    public string? Pocket { get; init; }
}

/// <summary>What was seen of a stroke.</summary>
public sealed record SeenEntry
{
    [Description("The balls whose end was seen; others say nothing. May be empty where what is told besides says something.")]
    public required IReadOnlyList<SeenBallEntry> Finals { get; init; }

    [Description("Whether the white was seen to meet a ball at all; null if nobody looked.")]
    public bool? Met { get; init; }

    [Description("The side on which the pot that was meant was seen to be missed; null if it was not, or nobody looked.")]
    public MissSide? Missed { get; init; }

    [Description("Standard deviation of each coordinate, m, 0.0005 to 0.5.")]
    public double Doubt { get; init; } = Seen.UsualDoubt;
}

/// <summary>A stroke as it was meant, and what was seen of it.</summary>
public record ObservedEntry
{
    public required IReadOnlyList<BallEntry> Balls { get; init; }

    [Description("As it was meant; the speed of the cue 0.24 to 7.08 m/s.")]
    public required StrikeRequest Strike { get; init; }

    [Description("The pot that was meant, if any.")]
    public PotEntry? Meant { get; init; }

    public required SeenEntry Seen { get; init; }

    /// <param name="path">Of this entry in the request.</param>
    /// <param name="seen">Of what was seen, in the entry.</param>
    /// <exception cref="InputException">Anything in it that cannot be.</exception>
    internal ObservedStroke Checked(TableShape shape, string path = "", string seen = "seen")
    {
        string At(string field) => path == "" ? field : $"{path}.{field}";
        var layout = Layout.Create(BallEntries.Of(Balls), shape, At("balls"));
        var stroke = ToStroke(Strike, At("strike"));
        var pot = Meant is { } m ? new MeantPot(m.Ball, m.Pocket, m.Part, m.Through, m.Off).In(layout, At("meant")) : null;
        if (Seen.Finals is null || Seen.Finals.Any(f => f is null))
            throw new InputException(At($"{seen}.finals"), "A ball is missing.", "balls with id, x and y");
        return ObservedStroke.Create(
            layout,
            stroke,
            [.. Seen.Finals.Select(f => ((string?)f.Id, f.X, f.Y, f.Pocket))],
            new([], Seen.Doubt) { MetABall = Seen.Met, Missed = Seen.Missed },
            pot,
            At(seen)
        );
    }

    internal static Stroke ToStroke(StrikeRequest strike, string path)
    {
        var checks = new Checks(path);
        checks.Range("cueSpeed", strike.CueSpeed, Pace.CueSpeed(Pace.Slowest), Pace.CueSpeed(Pace.Hardest), " m/s");
        checks.ThrowIfAny();
        var checkedStrike = DeepBaize.Core.Physics.Strike.Create(
            strike.Aim,
            strike.CueSpeed,
            strike.Side,
            strike.Height,
            strike.Elevation,
            path
        );
        var tip = Tip.Fraction(1);
        return new(
            checkedStrike.AimDegrees,
            checkedStrike.Side / tip,
            checkedStrike.Height / tip,
            Math.Clamp(Pace.OfCueSpeed(checkedStrike.CueSpeed), Pace.Slowest, Pace.Hardest),
            checkedStrike.ElevationDegrees
        );
    }
}

/// <summary>One stroke that did not do what was meant.</summary>
public sealed record LearnStrokeRequest : ObservedEntry
{
    public PlayerEntry Player { get; init; } = new();

    [Description("Figures of the table that differ from the defaults, by name.")]
    public IReadOnlyDictionary<string, double>? Conditions { get; init; }
}

/// <summary>Several attempts at one stroke.</summary>
public sealed record LearnShotRequest
{
    public required IReadOnlyList<BallEntry> Balls { get; init; }

    [Description("As it was meant each time.")]
    public required StrikeRequest Strike { get; init; }

    [Description("The pot that was meant, if any.")]
    public PotEntry? Meant { get; init; }

    [Description("What was seen of each attempt, 3 to 60.")]
    public required IReadOnlyList<SeenEntry> Seen { get; init; }
    public PlayerEntry Player { get; init; } = new();
    public IReadOnlyDictionary<string, double>? Conditions { get; init; }

    /// <exception cref="InputException">Anything in it that cannot be.</exception>
    internal IReadOnlyList<ObservedStroke> Checked(TableShape shape)
    {
        const int most = 60;
        if (Seen is not { Count: >= ShotVerdict.Fewest and <= most } || Seen.Any(s => s is null))
            throw new InputException(
                "seen",
                $"There are {Seen?.Count ?? 0} attempts.",
                $"{ShotVerdict.Fewest} to {most}, none of them null"
            );
        ObservedEntry Attempt(SeenEntry seen) =>
            new()
            {
                Balls = Balls,
                Strike = Strike,
                Meant = Meant,
                Seen = seen,
            };
        return [.. Seen.Select((s, i) => Attempt(s).Checked(shape, seen: $"seen[{i}]"))];
    }
}

/// <summary>Strokes that tell of a table.</summary>
public sealed record LearnTableRequest
{
    public required IReadOnlyList<ObservedEntry> Trials { get; init; }

    [Description("Names of the conditions that are to be learnt.")]
    public required IReadOnlyList<string> Fit { get; init; }

    [Description("Who played the strokes: what they do not hit as meant is not the table's.")]
    public PlayerEntry Player { get; init; } = new();

    [Description("What the table was taken for: figures that differ from the defaults, by name.")]
    public IReadOnlyDictionary<string, double>? Conditions { get; init; }
}

/// <summary>Strokes that tell of a player.</summary>
public sealed record LearnPlayerRequest
{
    public required IReadOnlyList<ObservedEntry> Attempts { get; init; }

    [Description("Who the player was taken for.")]
    public PlayerEntry Player { get; init; } = new();
    public IReadOnlyDictionary<string, double>? Conditions { get; init; }
}

/// <summary>What is known of a table, for the strokes that would tell most.</summary>
public sealed record TeachRequest
{
    [Description("Strokes played so far; may be none.")]
    public IReadOnlyList<ObservedEntry> Trials { get; init; } = [];
    public required IReadOnlyList<string> Fit { get; init; }
    public PlayerEntry Player { get; init; } = new();
    public IReadOnlyDictionary<string, double>? Conditions { get; init; }

    [Description("Standard deviation with which ends are seen, m, 0.0005 to 0.5.")]
    public double Doubt { get; init; } = Seen.UsualDoubt;
}

/// <summary>For whom what to practise is asked.</summary>
public sealed record GainRequest
{
    public PlayerEntry Player { get; init; } = new();
    public IReadOnlyDictionary<string, double>? Conditions { get; init; }
}
