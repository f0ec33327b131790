using DeepBaize.Core.Table;

namespace DeepBaize.Core.Camera;

/// <summary>
/// Follows the balls of a table by what a camera sees of them, picture by picture, and tells each stroke once everything has come to rest.
/// Sightings may be noisy, missing or taken for another ball now and then; what is asked of them is written in docs/devices.md.
/// </summary>
/// <param name="shape">Of the table.</param>
public sealed class TableWatch(TableShape shape)
{
    /// <summary>A ball is at rest that has not moved for so long, s.</summary>
    public const double StillFor = 0.6;

    /// <summary>Pictures that are looked at in a second of the camera's time; more are left out.</summary>
    public const int MostPerSecond = 100;

    /// <summary>If nothing is seen for longer, s, what happened meanwhile is not known.</summary>
    public const double LongestGap = 2;

    /// <summary>A stroke that takes longer is given up, s: no ball rolls so long.</summary>
    public const double LongestStroke = 60;

    /// <summary>Fastest that a ball goes, m/s: the hardest stroke, and something over.</summary>
    private const double Fastest = 10;

    /// <summary>A sighting may lie so far from where its ball should be, m.</summary>
    private const double Gate = 0.04;

    /// <summary>What is taken for another ball more often than this running is another ball.</summary>
    private const int MostMistaken = 3;

    /// <summary>A ball unseen for so long, s, in so many pictures, is no longer there.</summary>
    private const double GoneAfter = 0.8;
    private const int GonePictures = 20;

    /// <summary>Something seen so often within so many seconds at one place, m, is a ball that was put there.</summary>
    private const int PutAfter = 10;
    private const double PutWithin = 0.4,
        PutAt = 0.015;

    /// <summary>Earlier than the picture before by more than this, s, and so many times running: the clock has gone back.</summary>
    private const double Back = 1;
    private const int BackRunning = 3;

    /// <summary>What is kept of a ball that lies still, s; strokes that are remembered, to tell one that comes again.</summary>
    private const double Kept = 1.5;
    private const int Remembered = 200,
        LookAgain = 15;

    private readonly List<BallTrack> _tracks = [];
    private readonly List<BallTrack> _gone = [];
    private readonly List<Sighting> _strays = [];
    private readonly List<Sighting> _picture = [];
    private readonly List<double> _times = [];
    private readonly Queue<(double StartedAt, Vec2? White)> _told = [];
    private IReadOnlyList<PlacedBall> _before = [];
    private double _pictureAt = double.NaN,
        _lastLooked = double.NegativeInfinity,
        _startedAt;
    private int _backRunning;
    private bool _hadGap;

    /// <summary>What the table is doing.</summary>
    public WatchState State { get; private set; }

    /// <summary>What had to be put up with so far.</summary>
    public WatchTally Tally { get; private set; } = new();

    /// <summary>The camera's time of the newest picture, s; not a number before the first.</summary>
    public double Time => _pictureAt;

    /// <summary>The balls where they are now: at rest where they lie still, else where each was seen last.</summary>
    public IReadOnlyList<PlacedBall> Balls =>
        State == WatchState.Still
            ? _before
            : [.. _tracks.Where(t => !IsGone(t)).Select(t => new PlacedBall(t.Ball, OnTable(t.Last.At))).OrderBy(b => b.Ball.Index)];

    /// <summary>Takes a sighting in. Those of one picture come together, pictures in the order of their times.</summary>
    /// <returns>A stroke that is over with the picture before; null as long as there is none.</returns>
    public WatchedStroke? See(in Sighting sighting)
    {
        WatchedStroke? stroke = null;
        if (sighting.Time < _pictureAt)
        {
            _backRunning = sighting.Time < _pictureAt - Back ? _backRunning + 1 : 0;
            if (_backRunning < BackRunning)
            {
                Tally = Tally with { Late = Tally.Late + 1 };
                return null;
            }
            Restart();
        }
        else if (sighting.Time > _pictureAt)
            stroke = ClosePicture();
        _backRunning = 0;
        _pictureAt = sighting.Time;
        _picture.Add(sighting);
        return stroke;
    }

    /// <summary>Nothing more comes: the last picture is looked at.</summary>
    public WatchedStroke? End() => ClosePicture();

    private void Restart()
    {
        Tally = Tally with { JumpsBack = Tally.JumpsBack + 1, Lost = Tally.Lost + (State == WatchState.Moving ? 1 : 0) };
        Forget();
        _lastLooked = double.NegativeInfinity;
    }

    private void Forget()
    {
        _tracks.Clear();
        _gone.Clear();
        _strays.Clear();
        _times.Clear();
        _picture.Clear();
        State = WatchState.Empty;
    }

    private WatchedStroke? ClosePicture()
    {
        if (_picture.Count == 0)
            return null;
        var now = _pictureAt;
        if (now - _lastLooked < 1.0 / MostPerSecond - 1e-6)
        {
            Tally = Tally with { LeftOut = Tally.LeftOut + 1 };
            _picture.Clear();
            return null;
        }
        Tally = Tally with { Pictures = Tally.Pictures + 1 };
        if (now - _lastLooked > LongestGap && State != WatchState.Empty)
        {
            Tally = Tally with { Gaps = Tally.Gaps + 1, Lost = Tally.Lost + (State == WatchState.Moving ? 1 : 0) };
            Forget();
        }
        else if (State == WatchState.Moving && now - _lastLooked > 0.25)
            _hadGap = true;
        _lastLooked = now;
        _times.Add(now);
        Follow(now);
        _picture.Clear();
        return Advance(now);
    }

    // ---- Which sighting is which ball ------------------------------------------------------------------------------

    private void Follow(double now)
    {
        List<Sighting> open = [.. _picture.Where(s => IsNearTable(s.At))];
        List<Expected> unseen = [.. _tracks.Select(t => new Expected(t, t.At(now)))];
        // A sighting belongs to the ball of its kind that should be just there; else to any ball that should be, taken for another; else
        // to one of its kind that may have come so far.
        Match(open, unseen, now, IsSameKind, _ => Gate);
        var before = open.Count;
        Match(open, unseen, now, (_, _) => true, t => t.Mistaken < MostMistaken ? Gate : 0);
        Tally = Tally with { Mistaken = Tally.Mistaken + before - open.Count };
        Match(open, unseen, now, IsSameKind, t => Gate + Fastest * Math.Min(0.3, now - t.Last.Time));
        TakeStrays(open, now);
    }

    /// <summary>A ball, and where it should be in this picture.</summary>
    private readonly record struct Expected(BallTrack Track, Vec2 At)
    {
        /// <summary>How far off a sighting is: where the ball lay last is as good a guess, for it may have met something.</summary>
        public double Off(Vec2 seen) => Math.Min(seen.DistanceTo(At), seen.DistanceTo(Track.Last.At));
    }

    private static bool IsSameKind(Ball a, Ball b) => a == b || (a.IsRed && b.IsRed);

    /// <summary>Gives sightings to balls, the nearest pair first; takes what is given out of both lists.</summary>
    private static void Match(
        List<Sighting> open,
        List<Expected> unseen,
        double now,
        Func<Ball, Ball, bool> may,
        Func<BallTrack, double> gate
    )
    {
        var pairs = new List<(double Off, Expected Ball, Sighting Seen)>();
        foreach (var ball in unseen)
        {
            var farthest = gate(ball.Track);
            foreach (var sighting in open)
                if (may(sighting.Ball, ball.Track.Ball) && ball.Off(sighting.At) is var off && off < farthest)
                    pairs.Add((off, ball, sighting));
        }
        pairs.Sort((a, b) => a.Off.CompareTo(b.Off));
        foreach (var (_, ball, sighting) in pairs)
            // A ball that has one has been seen in this picture.
            if (ball.Track.Last.Time < now && open.Remove(sighting))
                ball.Track.Add(sighting);
        unseen.RemoveAll(b => b.Track.Last.Time >= now);
    }

    /// <summary>What belongs to no ball may be one that was put there: it is, if it stays.</summary>
    private void TakeStrays(List<Sighting> open, double now)
    {
        _strays.RemoveAll(s => s.Time < now - PutWithin);
        _strays.AddRange(open);
        foreach (var sighting in open)
        {
            List<Sighting> here = [.. _strays.Where(s => s.At.DistanceTo(sighting.At) < PutAt)];
            if (here.Count < PutAfter)
                continue;
            // Now and then a ball is taken for another: what it mostly was counts.
            var kind = here.GroupBy(s => s.Ball.IsRed ? Ball.Red(1) : s.Ball).MaxBy(g => g.Count())!.Key;
            if (TrackOf(kind, sighting.At, now) is not { } track)
                continue;
            foreach (var s in here.DistinctBy(s => s.Time).Where(s => track.History.Count == 0 || s.Time > track.Last.Time))
                track.Add(s);
            _strays.RemoveAll(s => s.At.DistanceTo(sighting.At) < PutAt);
        }
    }

    /// <summary>
    /// The track that something belongs to which lies where none is: of a ball out of sight that has come to lie here, or a new one. Null
    /// if all balls of the kind are in sight.
    /// </summary>
    private BallTrack? TrackOf(Ball kind, Vec2 at, double now)
    {
        var unseen = _tracks
            .Where(t => IsSameKind(t.Ball, kind) && now - t.Last.Time > PutWithin / 2)
            .OrderBy(t => t.Last.At.DistanceTo(at))
            .ToList();
        foreach (var old in unseen)
        {
            if (!IsPutBack(old, at))
                return old;
            Remove(old);
        }
        var free = kind.IsRed ? Enumerable.Range(1, Ball.RedCount).Select(Ball.Red) : [kind];
        foreach (var ball in free.Where(b => _tracks.TrueForAll(t => t.Ball != b)))
        {
            var track = new BallTrack(ball);
            _tracks.Add(track);
            return track;
        }
        return null;
    }

    /// <summary>Whether a ball went into a pocket and was put back here, by where it was seen last and where such balls are put.</summary>
    private bool IsPutBack(BallTrack track, Vec2 at)
    {
        const double nearPocket = 0.3,
            onSpot = 0.03;
        if (!shape.PocketShapes.Any(p => p.Drop.Centre.DistanceTo(track.Last.At) < nearPocket))
            return false;
        return track.Ball == Ball.White
            ? Dimensions.InD(at)
            : track.Ball.IsColour && Ball.Colours.Any(c => Dimensions.Spot(c).DistanceTo(at) < onSpot);
    }

    private void Remove(BallTrack track)
    {
        _tracks.Remove(track);
        _gone.Add(track);
    }

    private bool IsGone(BallTrack track)
    {
        var last = track.Last.Time;
        if (_times.Count == 0 || _times[^1] - last < GoneAfter)
            return false;
        var seen = 0;
        for (var i = _times.Count - 1; i >= 0 && _times[i] > last && seen < GonePictures; i--)
            seen++;
        return seen >= GonePictures;
    }

    private static bool IsNearTable(Vec2 at)
    {
        const double around = 0.12;
        return at.X > -around && at.Y > -around && at.X < Dimensions.Length + around && at.Y < Dimensions.Width + around;
    }

    private static Vec2 OnTable(Vec2 at) =>
        new(
            Math.Clamp(at.X, Dimensions.BallRadius, Dimensions.Length - Dimensions.BallRadius),
            Math.Clamp(at.Y, Dimensions.BallRadius, Dimensions.Width - Dimensions.BallRadius)
        );

    // ---- What the table does ---------------------------------------------------------------------------------------

    private WatchedStroke? Advance(double now)
    {
        foreach (var track in _tracks.Where(IsGone).ToList())
        {
            Remove(track);
            if (State == WatchState.Still)
                State = WatchState.Settling;
        }
        if (State == WatchState.Empty && _tracks.Count > 0)
            State = WatchState.Settling;
        if (State == WatchState.Still)
        {
            Begin(now);
            return null;
        }
        if (State == WatchState.Moving && now - _startedAt > LongestStroke)
        {
            Tally = Tally with { Lost = Tally.Lost + 1 };
            State = WatchState.Settling;
        }
        // Not at each picture: nothing comes to rest between two of them that would not be at rest a little later.
        if (Tally.Pictures % 3 != 0 || !ComesToRest(now))
            return null;
        var stroke = State == WatchState.Moving ? Told(now) : null;
        _before = AtRest();
        _gone.Clear();
        _hadGap = false;
        State = WatchState.Still;
        Forget(now - Kept);
        return stroke;
    }

    private void Begin(double now)
    {
        if (_tracks.Exists(t => t.Rest is null))
            State = WatchState.Settling;
        else if (_tracks.Exists(t => t.HasLeft()))
        {
            State = _tracks.Exists(t => t.Ball == Ball.White) ? WatchState.Moving : WatchState.Settling;
            _startedAt = now;
        }
        else
        {
            // The longer it lies, the better its place is known.
            if (Tally.Pictures % LookAgain == 0 && ComesToRest(now))
                _before = AtRest();
            Forget(now - Kept);
        }
    }

    private void Forget(double before)
    {
        foreach (var track in _tracks)
            track.Forget(before);
        _times.RemoveAll(t => t < before);
    }

    private Dictionary<BallTrack, Vec2> _rests = [];

    /// <summary>Whether every ball lies still at two looks running, within a few millimetres.</summary>
    private bool ComesToRest(double now)
    {
        const double same = 0.0025;
        var before = _rests;
        _rests = [];
        foreach (var track in _tracks)
        {
            if (track.RestAt(now) is not { } rest)
                return false;
            _rests[track] = rest;
        }
        if (_tracks.Count == 0 || _tracks.Exists(t => !before.TryGetValue(t, out var at) || at.DistanceTo(_rests[t]) > same))
            return false;
        foreach (var (track, rest) in _rests)
            (track.Was, track.Rest) = (track.Rest, rest);
        return true;
    }

    /// <summary>The balls as they lie, clear of one another and of the cushions: what is seen of them is a little off.</summary>
    private IReadOnlyList<PlacedBall> AtRest()
    {
        PlacedBall[] balls = [.. _tracks.Select(t => new PlacedBall(t.Ball, t.Rest!.Value)).OrderBy(b => b.Ball.Index)];
        Jitter.Part(balls, uint.MaxValue);
        return Arrangement.Settle(balls, [], shape);
    }

    private WatchedStroke? Told(double now)
    {
        List<(BallTrack, bool)> all =
        [
            .. _tracks.Where(t => t.Was is not null).Select(t => (t, false)),
            .. _gone.Where(t => t.Rest is not null).Select(t => (t, true)),
        ];
        const double earlier = 1;
        if (StrokeReading.Of(_before, AtRest(), all, (_startedAt - earlier, now), _hadGap) is not { } stroke)
        {
            Tally = Tally with { Hands = Tally.Hands + 1 };
            return null;
        }
        if (_told.Any(t => Math.Abs(t.StartedAt - stroke.StartedAt) < 0.25 && IsSamePlace(t.White, stroke.White)))
        {
            Tally = Tally with { Repeated = Tally.Repeated + 1 };
            return null;
        }
        _told.Enqueue((stroke.StartedAt, stroke.White));
        if (_told.Count > Remembered)
            _told.Dequeue();
        return stroke;
    }

    private static bool IsSamePlace(Vec2? a, Vec2? b) =>
        a is { } one && b is { } other ? one.DistanceTo(other) < 0.01 : a is null && b is null;
}
