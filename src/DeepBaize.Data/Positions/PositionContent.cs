using System.Text.Json.Serialization;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Data.Positions;

/// <summary>A ball and its centre: metres, x up the table from the baulk cushion, y across from the yellow's side.</summary>
public sealed record BallEntry
{
    public required string Id { get; init; }
    public required double X { get; init; }
    public required double Y { get; init; }

    public static BallEntry Of(PlacedBall ball) =>
        new()
        {
            Id = ball.Ball.Id,
            X = ball.X,
            Y = ball.Y,
        };
}

/// <summary>The pot that is tried: which ball into which pocket, straight, through another ball, or off a cushion.</summary>
public sealed record PotEntry
{
    public required string Ball { get; init; }
    public required string Pocket { get; init; }

    /// <summary>Which part of the pocket: −1 the thick side, 0 the middle, +1 the thin side.</summary>
    public double Part { get; init; }

    /// <summary>Of a plant, the ball that the white strikes; it then pots the other.</summary>
    public string? Through { get; init; }

    /// <summary>Of a double, the cushion: baulk, top, yellow-side, green-side.</summary>
    public string? Off { get; init; }
}

/// <summary>A stroke in the player's units.</summary>
public sealed record StrokeEntry
{
    /// <summary>Degrees counter-clockwise from straight up the table. Used if there is no pot, or the aim is free.</summary>
    public double Aim { get; init; }

    /// <summary>Tips, + is right-hand side.</summary>
    public double Side { get; init; }

    /// <summary>Tips above centre.</summary>
    public double Height { get; init; }

    /// <summary>1 to 10.</summary>
    public double Pace { get; init; } = 4;

    /// <summary>
    /// Degrees of the butt above level, 0–60, and 0 if it is to be level; null as the cue lies: the player's natural elevation, or the
    /// least that clears rail and balls.
    /// </summary>
    public double? Elevation { get; init; }
    public PotEntry? Pot { get; init; }

    /// <summary>Aim by <see cref="Aim"/> although there is a pot.</summary>
    public bool Free { get; init; }

    /// <param name="natural">The elevation where none is said, degrees.</param>
    public Stroke ToStroke(double natural) => new(Aim, Side, Height, Pace, Elevation ?? natural);
}

/// <summary>An exercise on any layout, outside the rules of a frame.</summary>
public sealed record ExerciseEntry
{
    /// <summary>any: each of the balls is on at any time; inOrder: one after the other as they are listed.</summary>
    public ExerciseOrder Order { get; init; }

    /// <summary>Ids of the object balls to be potted; null: all that are on the table.</summary>
    public IReadOnlyList<string>? Balls { get; init; }
}

/// <summary>The state of a frame, as far as the balls do not tell.</summary>
public record FrameStateEntry
{
    /// <summary>red, colour, yellow … black; null: a red while there is one, else the colour of the least value.</summary>
    public string? On { get; init; }

    /// <summary>Score of the first player, who is at the table unless <see cref="Turn"/> says otherwise.</summary>
    public int First { get; init; }
    public int Second { get; init; }

    /// <summary>Who is at the table: 0 or 1.</summary>
    public int Turn { get; init; }

    /// <summary>Points of the break so far.</summary>
    public int Break { get; init; }
    public bool FreeBall { get; init; }

    /// <summary>Whether the white is played from the D.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool InHand { get; init; }

    /// <summary>Misses of the player at the table in this turn of unbroken replays from one place.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public int Misses { get; init; }

    /// <summary>Whether the black was spotted again after level scores.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool Respotted { get; init; }

    /// <summary>Whether it is still to be drawn by lot who plays first at that black.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public bool AwaitsLot { get; init; }

    /// <summary>The winner, 0 or 1, of a frame that is over.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public int? Winner { get; init; }

    /// <summary>An exercise: the single colour that is on comes back each time it is potted.</summary>
    public bool Repeats { get; init; }

    /// <summary>An exercise in place of a frame; null: a frame.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public ExerciseEntry? Exercise { get; init; }
}

/// <summary>The frame that a position is in: its state, and the foul before it that may still be answered.</summary>
public sealed record FrameEntry : FrameStateEntry
{
    public FrameEntry() { }

    public FrameEntry(FrameStateEntry state)
        : base(state) { }

    /// <summary>The foul that the player at the table may answer; null if the last stroke was none.</summary>
    [JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]
    public OffenceEntry? Offence { get; init; }
}

/// <summary>A foul that the player at the table may answer (the Official Rules, Section 3, rules 13 and 14).</summary>
public sealed record OffenceEntry
{
    /// <summary>Whether a miss was called: the balls may be put back.</summary>
    public bool Miss { get; init; }

    /// <summary>Misses in this turn of unbroken replays, this one among them.</summary>
    public int Misses { get; init; }

    /// <summary>The frame before the stroke.</summary>
    public required FrameStateEntry Before { get; init; }

    /// <summary>The balls before the stroke.</summary>
    public required IReadOnlyList<BallEntry> Balls { get; init; }
}

/// <summary>What a position holds beside its name: stored as it is sent and as it stands in a file.</summary>
public sealed record PositionContent
{
    public required IReadOnlyList<BallEntry> Balls { get; init; }
    public StrokeEntry Stroke { get; init; } = new();

    /// <summary>What differs from the default conditions, by name; SI units.</summary>
    public IReadOnlyDictionary<string, double> Conditions { get; init; } = new Dictionary<string, double>();
    public FrameEntry? Frame { get; init; }
}

/// <summary>A place on the table, m.</summary>
public sealed record TracePoint
{
    public required double X { get; init; }
    public required double Y { get; init; }
}

/// <summary>A stroke that was tried on the desk and has left its line.</summary>
public sealed record TrialEntry
{
    /// <summary>Unique among the trials of a position.</summary>
    public required string Id { get; init; }

    /// <summary>A short name: "half low, 4".</summary>
    public required string Name { get; init; }
    public required StrokeEntry Stroke { get; init; }

    /// <summary>The white's way.</summary>
    public required IReadOnlyList<TracePoint> Line { get; init; }

    /// <summary>Index in the line of the place where the white met its first ball.</summary>
    public int Met { get; init; }

    /// <summary>What the stroke did, in words: which ball went in, where the white stops.</summary>
    public string Outcome { get; init; } = "";

    /// <summary>What the stroke did otherwise than the trial before, in words.</summary>
    public string Change { get; init; } = "";

    /// <summary>Whether its line is drawn.</summary>
    public bool Shown { get; init; } = true;

    /// <summary>Where the white was seen to stop at the table; null if nobody has said.</summary>
    public TracePoint? SeenWhite { get; init; }

    /// <summary>Where the object ball was seen to stop, having missed; null if nobody has said.</summary>
    public TracePoint? SeenBall { get; init; }

    /// <summary>On which side the pot was seen to be missed; null if it was not, or nobody has said.</summary>
    public MissSide? Missed { get; init; }

    /// <summary>Whether the white was seen to meet a ball; null if nobody has said.</summary>
    public bool? Hit { get; init; }

    /// <summary>How attempts at this stroke ended before the one that is told by itself.</summary>
    public IReadOnlyList<SeenEnd> Earlier { get; init; } = [];

    /// <summary>The balls as they lay, if they have been moved since; null: as those of the position.</summary>
    public IReadOnlyList<BallEntry>? Balls { get; init; }
}

/// <summary>How one attempt at a stroke was seen to end.</summary>
public sealed record SeenEnd
{
    /// <summary>Where the white stopped, m.</summary>
    public required TracePoint White { get; init; }

    /// <summary>Where the object ball stopped, having missed; null if nobody has said.</summary>
    public TracePoint? Ball { get; init; }

    /// <summary>On which side the pot was missed; null if it was not, or nobody has said.</summary>
    public MissSide? Missed { get; init; }

    /// <summary>Whether the white met a ball; null if nobody has said.</summary>
    public bool? Hit { get; init; }
}
