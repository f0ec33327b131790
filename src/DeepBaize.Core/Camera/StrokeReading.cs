using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Camera;

/// <summary>Reads a stroke off what was seen of the balls from one rest to the next.</summary>
internal sealed class StrokeReading
{
    /// <summary>A white that goes slower was not struck, m/s.</summary>
    private const double SlowestStrike = 0.06;

    /// <summary>How well the time is known at which a ball left, s, and the place of the white then, m.</summary>
    private const double TimeDoubt = 0.008,
        PlaceDoubt = 0.006;

    /// <summary>A ball last seen as near to a pocket's drop went into it, if it went that way, m.</summary>
    private const double NearPocket = 0.35;

    private readonly IReadOnlyList<PlacedBall> _before;
    private readonly List<BallWay> _ways;
    private readonly BallWay _white;

    private StrokeReading(IReadOnlyList<PlacedBall> before, List<BallWay> ways, BallWay white) =>
        (_before, _ways, _white) = (before, ways, white);

    /// <param name="span">What was seen from some time before anything moved until everything lay still again, s.</param>
    /// <returns>Null if this was no stroke of the cue: the white was not struck, or something else moved before it.</returns>
    public static WatchedStroke? Of(
        IReadOnlyList<PlacedBall> before,
        IReadOnlyList<PlacedBall> after,
        IReadOnlyList<(BallTrack Track, bool IsGone)> tracks,
        (double From, double To) span,
        bool hadGap
    )
    {
        List<BallWay> ways =
        [
            .. before.Select(b =>
            {
                var (track, isGone) = tracks.First(t => t.Track.Ball == b.Ball);
                return new BallWay(b, track, isGone, span.From);
            }),
        ];
        if (ways.Find(w => w.Ball == Ball.White) is not { } white || white.LeftAt is not { } start || white.Launch is not { } launch)
            return null;
        // A white that has met a ball at once goes slowly, and when it left is not known so well.
        const double together = 0.06,
            unseen = 0.3;
        var late = together + 4 * PlaceDoubt / launch.Length + (hadGap ? unseen : 0);
        // Struck back later it may go faster than at first; a hand that moves it meets nothing at once.
        const double atOnce = 0.3;
        var strikes = ways.Exists(w => w != white && w.LeftAt < start + atOnce && !w.WasCarried);
        if (
            launch.Length < SlowestStrike
            || white.WasCarried
            || ways.Exists(w => w.LeftBy < start - late)
            || !(white.BeginsFast || strikes)
        )
            return null;
        start = ways.Min(w => w.LeftAt ?? start);
        return new StrokeReading(before, ways, white).Read(after, start, span.To, hadGap);
    }

    private WatchedStroke Read(IReadOnlyList<PlacedBall> after, double start, double now, bool hadGap)
    {
        var (first, isClear) = First(start);
        var (gone, areSeen) = Gone(after);
        List<WatchDoubt> doubts = [];
        if (hadGap)
            doubts.Add(WatchDoubt.Gap);
        if (!isClear)
            doubts.Add(WatchDoubt.FirstBall);
        if (!areSeen)
            doubts.Add(WatchDoubt.LostBall);
        var launch = _white.Launch!.Value;
        var paths = _ways.Where(w => w.LeftAt is not null).OrderBy(w => w.Ball.Index).Select(w => w.Path(start));
        return new(start, now, _before, after, first, gone, [.. paths])
        {
            DirectionDegrees = launch.Direction.Degrees,
            Speed = launch.Length,
            Doubts = doubts,
        };
    }

    // ---- The ball that was met first -------------------------------------------------------------------------------

    /// <summary>
    /// Of the balls that moved, the one that left about first, from just as far from the white's middle as two balls are that touch.
    /// </summary>
    private (Ball? First, bool IsClear) First(double start)
    {
        List<(BallWay Way, double At)> moved =
        [
            .. _ways
                .Where(w => w != _white && (w.LeftAt is not null || w.IsTouched || w.IsLost))
                .Select(w => (Way: w, At: LeftAt(w, start)))
                .Where(m => m.At is not null)
                .Select(m => (m.Way, m.At!.Value)),
        ];
        if (moved.Count == 0)
            // One that it came very near to may have been touched without being seen to move.
            return (null, !_ways.Exists(w => w != _white && _white.NearestTo(w.From, 2 * BallRadius + PlaceDoubt) is not null));
        var first = Math.Max(start, moved.Min(m => m.At));
        var line = _white.LineBefore(first);
        double Penalty((BallWay Way, double At) m)
        {
            // When a slow ball left is not known so well.
            var doubt = TimeDoubt + PlaceDoubt / Math.Max(0.05, m.Way.Launch?.Length ?? 0);
            var late = Math.Max(0, m.At - first) / doubt;
            var apart = Math.Abs(line.ReachOf(m.Way.From)) / PlaceDoubt;
            return late + apart;
        }
        var ranked = moved.OrderBy(Penalty).ToList();
        var best = ranked[0];
        // Of several that would be met on the same line the nearest one is.
        const double asGood = 3;
        var met = ranked.TakeWhile(m => Penalty(m) < Penalty(best) + asGood).MinBy(m => line.AlongTo(m.Way.From));
        var isClear =
            ranked.Count < 2 || met.Way != best.Way || Penalty(ranked[1]) > Penalty(best) + 1 || AreBothRed(ranked[0].Way, ranked[1].Way);
        return (InTheWay(line, met.Way) ?? met.Way.Ball, isClear);
    }

    /// <summary>
    /// When a ball left: as it was seen to, or when the white came to it, or, of one that went unseen, when it was seen last.
    /// </summary>
    private double? LeftAt(BallWay way, double start) =>
        way.LeftAt >= start ? way.LeftAt
        : _white.NearestTo(way.From, 2 * BallRadius + PlaceDoubt) is { } near ? near
        : way.IsLost ? Math.Max(way.LastSeen, start) + 1e-3
        : null;

    /// <summary>
    /// A ball that the white cannot have passed on its way to another, though it was not seen to move: it has handed on all that it got.
    /// </summary>
    private Ball? InTheWay(WhiteLine line, BallWay to)
    {
        var along = line.AlongTo(to.From);
        return _ways
            .Where(w => w != _white && w != to && line.IsBlockedBy(w.From) && line.AlongTo(w.From) < along && IsBesideMoved(w))
            .OrderBy(w => line.AlongTo(w.From))
            .Select(w => (Ball?)w.Ball)
            .FirstOrDefault();
    }

    private bool IsBesideMoved(BallWay way)
    {
        const double beside = 0.015;
        return _ways.Exists(w => w != way && w != _white && w.LeftAt is not null && w.From.DistanceTo(way.From) < 2 * BallRadius + beside);
    }

    private static bool AreBothRed(BallWay a, BallWay b) => a.Ball.IsRed && b.Ball.IsRed;

    // ---- Balls that went in ----------------------------------------------------------------------------------------

    private (List<GoneBall> Gone, bool AreSeen) Gone(IReadOnlyList<PlacedBall> after)
    {
        var gone = new List<GoneBall>();
        var areSeen = true;
        // No camera tells reds apart: as many went as are fewer, those that were lost from sight at a pocket before others.
        var reds = _before.Count(b => b.Ball.IsRed) - after.Count(b => b.Ball.IsRed);
        var lost = _ways.Where(w => w.IsLost).OrderBy(w => w.ToPocket().Distance).ToList();
        foreach (var way in lost.Where(w => !w.Ball.IsRed).Concat(lost.Where(w => w.Ball.IsRed).Take(Math.Max(0, reds))))
        {
            var (pocket, distance) = way.ToPocket();
            areSeen &= distance < NearPocket;
            gone.Add(new(way.Ball, distance < NearPocket ? pocket : null));
        }
        return (gone, areSeen);
    }
}

/// <summary>A straight way of the white's middle, before it met something.</summary>
/// <param name="Seen">How far along it the white was seen, m.</param>
internal readonly record struct WhiteLine(Vec2 From, Vec2 Direction, double Seen)
{
    /// <summary>How far along it the white touches a ball at a place, or comes nearest to it; m.</summary>
    public double AlongTo(Vec2 ball)
    {
        var along = (ball - From).Dot(Direction);
        var across = Direction.Cross(ball - From);
        var deep = 4 * BallRadius * BallRadius - across * across;
        return deep > 0 ? along - Math.Sqrt(deep) : along;
    }

    /// <summary>Whether the white cannot pass a ball at a place, and has not passed it yet.</summary>
    public bool IsBlockedBy(Vec2 ball)
    {
        const double doubt = 0.005;
        return AlongTo(ball) > Seen && Math.Abs(Direction.Cross(ball - From)) < 2 * BallRadius - doubt;
    }

    /// <summary>How much room there is between the white's way and a ball at a place, m; 0 if it meets the ball.</summary>
    public double ReachOf(Vec2 ball)
    {
        var along = (ball - From).Dot(Direction);
        var across = along > 0 ? Math.Abs(Direction.Cross(ball - From)) : From.DistanceTo(ball);
        return Math.Max(0, across - 2 * BallRadius);
    }
}

/// <summary>What was seen of one ball in a stroke.</summary>
internal sealed class BallWay
{
    /// <summary>A ball at rest so far from where it lay was touched, m: its place is the mean of some fifteen sightings.</summary>
    private const double Touched = 0.005;

    /// <summary>A sighting that lies alone and so far off was of another ball, m.</summary>
    private const double Stray = 0.05;

    /// <summary>How a ball left is fitted to what was seen of it within so many seconds and metres.</summary>
    private const double FitWithin = 0.16,
        FitAlong = 0.08;

    private readonly List<Seen> _seen;
    private readonly double _moved;
    private readonly List<(double At, double Speed)> _speeds;
    private Vec2? _landed;

    public BallWay(PlacedBall ball, BallTrack track, bool isLost, double since)
    {
        (Ball, From, To, IsLost, _seen) = (
            ball.Ball,
            // As it was seen: what the page is told has been moved apart from its neighbours.
            (isLost ? track.Rest : track.Was) ?? ball.At,
            isLost ? null : track.Rest,
            isLost,
            Cleaned([.. track.History.Where(s => s.Time >= since)], isLost)
        );
        _moved = track.Moved;
        // Nothing that was moved comes back to where it lay.
        (LeftAt, LeftBy, Launch) = IsLost || IsTouched ? Start() : (null, null, null);
        _speeds = Speeds();
    }

    public Ball Ball { get; }
    public Vec2 From { get; }

    /// <summary>Where it lies afterwards; null if it is gone.</summary>
    public Vec2? To { get; }

    /// <summary>Whether it went out of sight, and did not come back by itself.</summary>
    public bool IsLost { get; }

    /// <summary>When it left its place, s; null if it was not seen to.</summary>
    public double? LeftAt { get; }

    /// <summary>When it had left its place at the latest, however fast it went, s; null if it was not seen to.</summary>
    public double? LeftBy { get; }

    /// <summary>How it left, m/s.</summary>
    public Vec2? Launch { get; }

    /// <summary>When it was seen last, s.</summary>
    public double LastSeen => _seen.Count > 0 ? _seen[^1].Time : double.NegativeInfinity;

    /// <summary>Whether it lies a little beside where it lay.</summary>
    public bool IsTouched => To is { } to && to.DistanceTo(From) > Touched;

    /// <summary>Leaves out single sightings far from their neighbours: another ball was taken for this one.</summary>
    private static List<Seen> Cleaned(List<Seen> seen, bool isLost)
    {
        var kept = new List<Seen>();
        for (var i = 0; i < seen.Count; i++)
        {
            var isAlone =
                kept.Count > 0
                && i + 1 < seen.Count
                && seen[i].At.DistanceTo(kept[^1].At) > Stray
                && seen[i].At.DistanceTo(seen[i + 1].At) > Stray
                && seen[i + 1].At.DistanceTo(kept[^1].At) < Stray / 2;
            if (!isAlone)
                kept.Add(seen[i]);
        }
        // Once a ball has gone, another one that is taken for it is seen alone, some time later.
        const double lately = 0.06;
        while (isLost && kept.Count > 2 && kept[^1].Time - kept[^2].Time > lately && kept[^1].At.DistanceTo(kept[^2].At) > Stray)
            kept.RemoveAt(kept.Count - 1);
        return kept;
    }

    /// <summary>The time at which a straight line through the first places off its rest leaves the rest, and how fast it goes.</summary>
    private (double? At, double? By, Vec2? Velocity) Start()
    {
        const double fastest = 12;
        const int running = 3;
        var first = -1;
        for (var i = 0; i < _seen.Count && first < 0; i++)
        {
            var off = _seen[i].At - From;
            var since = _seen[i].Time - (i > 0 ? _seen[i - 1].Time : _seen[i].Time - 0.02);
            if (
                off.Length > _moved
                && off.Length < fastest * (since + 0.01)
                && Enumerable.Range(i, running).All(k => k >= _seen.Count || _seen[k].At.DistanceTo(From) > _moved)
            )
                first = i;
        }
        if (first < 0)
            return (null, null, null);
        var from = _seen[first];
        var by = from.Time - (from.At - From).Length / fastest;
        List<Seen> line =
        [
            .. _seen.Skip(first).TakeWhile((s, k) => k < 2 || (s.Time < from.Time + FitWithin && s.At.DistanceTo(From) < FitAlong)),
        ];
        if (line.Count < 2)
            return (from.Time, by, null);
        var (t, at) = (line.Average(s => s.Time), Mean(line));
        var spread = line.Sum(s => (s.Time - t) * (s.Time - t));
        var velocity = (1 / spread) * line.Aggregate(new Vec2(0, 0), (sum, s) => sum + (s.Time - t) * (s.At - at));
        var direction = (at - From).Unit;
        // It cannot have left before it was last seen at its place, but for the little that noise hides.
        const double hidden = 0.02;
        var last = (first > 0 ? _seen[first - 1].Time : from.Time) - hidden;
        _landed = from.At;
        var speed = Math.Max((from.At - From).Length / (from.Time - last), velocity.Dot(direction));
        var left = Math.Clamp(t - (at - From).Length / speed, last, from.Time);
        return (left, by, speed * direction);
    }

    private static Vec2 Mean(List<Seen> seen) => new(seen.Average(s => s.At.X), seen.Average(s => s.At.Y));

    /// <summary>A struck ball is fastest at once; one that a hand moves is not.</summary>
    public bool BeginsFast
    {
        get
        {
            const double soon = 0.08,
                share = 0.8,
                noise = 0.08;
            // A sighting of another ball makes two speeds too high.
            const int mistaken = 4;
            List<double> early = [.. _speeds.Where(s => s.At < LeftAt + soon).Select(s => s.Speed)];
            return LeftAt is not null
                && (
                    early.Count == 0
                    || _speeds.Count <= mistaken
                    || early.Max() > share * _speeds.Select(s => s.Speed).OrderDescending().ElementAt(mistaken) - noise
                );
        }
    }

    /// <summary>Whether a hand took it up and put it down elsewhere: where it was seen first, there it lies.</summary>
    public bool WasCarried
    {
        get
        {
            const double same = 0.012,
                far = 0.1;
            return _landed is { } landed && To is { } to && landed.DistanceTo(to) < same && landed.DistanceTo(From) > far;
        }
    }

    /// <summary>How fast it went after it had left, m/s, by times, s.</summary>
    private List<(double At, double Speed)> Speeds()
    {
        const double longest = 0.2;
        var speeds = new List<(double, double)>();
        for (var i = 3; i < _seen.Count; i++)
        {
            var (a, b) = (_seen[i - 3], _seen[i]);
            if (a.Time > LeftAt - 0.01 && b.Time - a.Time < longest)
                speeds.Add((a.Time, a.At.DistanceTo(b.At) / (b.Time - a.Time)));
        }
        return speeds;
    }

    /// <summary>When its middle first came as near as this to a place, s; null if it never did.</summary>
    public double? NearestTo(Vec2 place, double within)
    {
        for (var i = 1; i < _seen.Count; i++)
            if (new Segment(_seen[i - 1].At, _seen[i].At).DistanceTo(place) < within)
                return _seen[i].Time;
        return null;
    }

    /// <summary>The straight way on which it was just before a time.</summary>
    public WhiteLine LineBefore(double time)
    {
        const double longEnough = 0.12,
            latest = 1,
            straight = 0.008;
        var left = LeftAt ?? double.NegativeInfinity;
        List<Seen> before = [.. _seen.Where(s => s.Time > left && s.Time < time - 1e-4 && s.Time > time - latest)];
        if (left > time - latest)
            before.Insert(0, new(left, From));
        if (before.Count < 2)
            return new(From, Launch!.Value.Unit, 0);
        // As far back as the way is straight: before a cushion or a curve it was another line.
        var first = before.Count - 2;
        bool IsStraight(int from)
        {
            var chord = new Segment(before[from].At, before[^1].At);
            return before.Skip(from).All(s => chord.DistanceTo(s.At) < straight);
        }
        while (first > 0 && before[first].At.DistanceTo(before[^1].At) < longEnough && IsStraight(first - 1))
            first--;
        var way = before[first..];
        // The mean of its halves is steadier than its ends.
        var half = Math.Max(1, way.Count / 2);
        var (from, to) = (Mean(way[..half]), Mean(way[^half..]));
        return from.DistanceTo(to) > 0.004
            ? new(from, (to - from).Unit, (way[^1].At - from).Dot((to - from).Unit) - 0.01)
            : new(From, Launch!.Value.Unit, 0);
    }

    /// <summary>The pocket that it went to when it was seen last, and how near its way came to it, m.</summary>
    public (Pocket Pocket, double Distance) ToPocket()
    {
        const double further = 0.15,
            unseen = 0.4;
        var last = _seen[^1].At;
        var (velocity, on) = (new Vec2(0, 0), last);
        if (_seen.Count > 3)
        {
            velocity = (last - _seen[^3].At) / (_seen[^1].Time - _seen[^3].Time);
            if (velocity.Length > 0.3)
                on = last + (further + unseen * velocity.Length) * velocity.Unit;
        }
        // On its way, or where it was seen last: it may have met a jaw since.
        double Distance(Pocket pocket) =>
            Math.Min(
                new Segment(last, on).DistanceTo(DropOf(pocket)) + 0.1 * last.DistanceTo(DropOf(pocket)),
                last.DistanceTo(DropOf(pocket))
            );
        return Pockets.All.Select(p => (Pocket: p, Distance: Distance(p))).MinBy(p => p.Distance);
    }

    private static Vec2 DropOf(Pocket pocket) => Drops[(int)pocket];

    private static readonly Vec2[] Drops =
    [
        .. new TableShape(Conditions.Default).PocketShapes.OrderBy(p => p.Pocket).Select(p => p.Drop.Centre),
    ];

    /// <summary>Its way in as few straight pieces as tell it, times from the strike on.</summary>
    public SeenPath Path(double start)
    {
        const double within = 0.012;
        List<Seen> seen = [new(LeftAt!.Value, From), .. _seen.Where(s => s.Time > LeftAt)];
        if (To is { } to)
            seen.Add(new(seen[^1].Time, to));
        var kept = Contours.Thinned([.. seen.Select(s => s.At)], within);
        return new(Ball, [.. kept.Select(i => (seen[i].Time - start, seen[i].At))]);
    }
}
