using System.Text.Json.Serialization;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Practice;

/// <summary>What can be asked of an attempt.</summary>
public enum DemandKind
{
    /// <summary>The ball that is meant goes into the pocket that is meant.</summary>
    Pot,

    /// <summary>The white stops in an area.</summary>
    WhiteIn,

    /// <summary>The ball that was struck stops in an area.</summary>
    BallIn,

    /// <summary>The white stops so near a cushion.</summary>
    WhiteOnCushion,

    /// <summary>The ball that was struck stops so near a cushion.</summary>
    BallOnCushion,

    /// <summary>The white meets this ball first.</summary>
    MeetsFirst,

    /// <summary>The white runs on into this ball, before any other.</summary>
    RunsInto,

    /// <summary>The white comes back over the place where it lay: back on the tip.</summary>
    BackOnTip,

    /// <summary>The white passes between two balls and touches neither.</summary>
    Gate,

    /// <summary>The white meets no cushion.</summary>
    NoCushion,

    /// <summary>No side that was not meant.</summary>
    NoSide,

    /// <summary>A run of at least a number of points.</summary>
    Score,
}

/// <summary>One thing that is asked of an attempt; a rule is a list of them, and all are to be met.</summary>
public sealed record Demand
{
    /// <summary>What is demanded.</summary>
    public required DemandKind Kind { get; init; }

    /// <summary>Of an area.</summary>
    public Area? Area { get; init; }

    /// <summary>Which cushion: baulk, top, yellow-side, green-side; null for any.</summary>
    public string? Cushion { get; init; }

    /// <summary>Which ball, by its id; of a gate the one post. Null, where the white is to run on: into any.</summary>
    public string? Ball { get; init; }

    /// <summary>The other post of a gate.</summary>
    public string? Other { get; init; }

    /// <summary>How near, m: from the cushion, or to either side of the tip.</summary>
    public double? Within { get; init; }

    /// <summary>Points.</summary>
    public int? Points { get; init; }

    /// <summary>Whether the demand is met, as far as was seen; null if it cannot be told.</summary>
    /// <param name="from">The balls as they lay.</param>
    public bool? IsMet(Observation seen, IReadOnlyList<LaidBall> from) =>
        Kind switch
        {
            DemandKind.Pot => seen.Potted ?? seen.Said,
            DemandKind.WhiteIn => seen.WhiteLost == true ? false
            : seen.White is { } w ? Area!.Outside(w) <= 0
            : seen.Said,
            DemandKind.BallIn => seen.BallLost == true ? false
            : seen.Ball is { } b ? Area!.Outside(b) <= 0
            : seen.Said,
            DemandKind.WhiteOnCushion => seen.WhiteLost == true ? false
            : seen.White is { } w ? IsNearCushion(w)
            : seen.Said,
            DemandKind.BallOnCushion => seen.BallLost == true ? false
            : seen.Ball is { } b ? IsNearCushion(b)
            : seen.Said,
            DemandKind.MeetsFirst => seen.Met is { } met ? met.Count > 0 && met[0].Id == Ball : seen.Said,
            DemandKind.RunsInto => seen.Met is { } met ? met.Count > 1 && (Ball is null || met[1].Id == Ball) : seen.Said,
            DemandKind.BackOnTip => seen.Way is { } way ? IsBack(way) : seen.Said,
            DemandKind.Gate => seen.Way is { } way ? IsThrough(way, from) : seen.Said,
            DemandKind.NoCushion => seen.Cushions is { } met ? met == 0 : seen.Said,
            DemandKind.NoSide => seen.Side is { } side ? !side : seen.Said,
            _ => seen.Score is { } score ? score >= Points : seen.Said,
        };

    private bool IsNearCushion(Vec2 ball)
    {
        var clearance = Cushions.TryParse(Cushion, out var which) ? which.Distance(ball) - Dimensions.BallRadius : Cushions.Clearance(ball);
        return clearance <= Within;
    }

    /// <summary>Back over its place, beside it by no more than is allowed, after it had been away.</summary>
    private bool IsBack(IReadOnlyList<Segment> way)
    {
        const double away = 0.3;
        if (way.Count == 0)
            return false;
        var (start, hasBeenAway) = (way[0].From, false);
        foreach (var piece in way)
        {
            hasBeenAway |= piece.From.DistanceTo(start) > away;
            if (hasBeenAway && piece.DistanceTo(start) <= Within)
                return true;
        }
        return false;
    }

    private bool IsThrough(IReadOnlyList<Segment> way, IReadOnlyList<LaidBall> from)
    {
        Vec2 Post(string? id) => from.FirstOrDefault(b => b.Id == id) is { } ball ? new(ball.X, ball.Y) : default;
        var (one, other) = (Post(Ball), Post(Other));
        var across = other - one;
        const double clear = 2 * Dimensions.BallRadius;
        foreach (var piece in way)
        {
            if (piece.DistanceTo(one) < clear || piece.DistanceTo(other) < clear)
                return false;
            var (before, after) = (across.Cross(piece.From - one), across.Cross(piece.To - one));
            if (before * after > 0 || before == after)
                continue;
            var at = piece.From + before / (before - after) * (piece.To - piece.From);
            var share = (at - one).Dot(across) / across.SquaredLength;
            if (share is > 0 and < 1)
                return true;
        }
        return false;
    }

    /// <summary>Returns this demand mirrored to the other side of the table.</summary>
    [JsonIgnore]
    public Demand Mirrored =>
        this with
        {
            Area = Area?.Mirrored,
            Cushion = TableMirror.OtherSide.Name(Cushion),
            Ball = TableMirror.OtherSide.Name(Ball),
            Other = TableMirror.OtherSide.Name(Other),
        };

    /// <summary>A field that the kind does not use is refused: it would be kept unchecked.</summary>
    private void CheckUnused(Checks checks, string field)
    {
        string[] used = Kind switch
        {
            DemandKind.WhiteIn or DemandKind.BallIn => ["area"],
            DemandKind.WhiteOnCushion or DemandKind.BallOnCushion => ["within", "cushion"],
            DemandKind.BackOnTip => ["within"],
            DemandKind.MeetsFirst or DemandKind.RunsInto => ["ball"],
            DemandKind.Gate => ["ball", "other"],
            DemandKind.Score => ["points"],
            _ => [],
        };
        (string Name, bool IsGiven)[] fields =
        [
            ("area", Area is not null),
            ("cushion", Cushion is not null),
            ("ball", Ball is not null),
            ("other", Other is not null),
            ("within", Within is not null),
            ("points", Points is not null),
        ];
        foreach (var (name, _) in fields.Where(f => f.IsGiven && !used.Contains(f.Name)))
            checks.That(false, $"{field}.{name}", "This demand does not use it.", "leave it out, or null");
    }

    internal void Check(Checks checks, string field, IReadOnlySet<string> balls, bool hasPot)
    {
        CheckUnused(checks, field);
        switch (Kind)
        {
            case DemandKind.Pot:
                checks.That(hasPot, field, "No ball is meant to be potted.", "a stroke with a pot");
                break;
            case DemandKind.WhiteIn or DemandKind.BallIn:
                checks.That(Area is not null, $"{field}.area", "The area is missing.", "a circle or a box");
                Area?.Check(checks, $"{field}.area");
                break;
            case DemandKind.WhiteOnCushion or DemandKind.BallOnCushion or DemandKind.BackOnTip:
                checks.Range($"{field}.within", Within ?? double.NaN, 0.001, 1, " m");
                checks.That(
                    Cushion is null || Cushions.TryParse(Cushion, out _),
                    $"{field}.cushion",
                    "There is no such cushion.",
                    Cushions.AllowedNames
                );
                break;
            case DemandKind.MeetsFirst or DemandKind.RunsInto:
                checks.That(
                    Kind == DemandKind.RunsInto && Ball is null || Ball is not null && balls.Contains(Ball),
                    $"{field}.ball",
                    "There is no such ball here.",
                    string.Join(", ", balls)
                );
                break;
            case DemandKind.Gate:
                foreach (var (name, post) in new[] { ("ball", Ball), ("other", Other) })
                    checks.That(
                        post is not null && balls.Contains(post),
                        $"{field}.{name}",
                        "There is no such ball here.",
                        string.Join(", ", balls)
                    );
                checks.That(Ball != Other, $"{field}.other", "A gate has two posts.", "another ball");
                break;
            case DemandKind.Score:
                checks.Range($"{field}.points", Points ?? double.NaN, 1, 999);
                break;
            default:
                break;
        }
    }
}
