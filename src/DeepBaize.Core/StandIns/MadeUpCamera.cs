using DeepBaize.Core.Camera;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.StandIns;

/// <summary>How badly a made-up camera sees.</summary>
/// <param name="Noise">Standard deviation of each coordinate, m.</param>
/// <param name="GapsPerSecond">How often nothing is seen for <paramref name="GapSeconds"/>, and each ball by itself as often again.</param>
/// <param name="GapSeconds">Length of a gap, s.</param>
/// <param name="Mistaken">Share of sightings in which a ball is taken for another, 0–1.</param>
/// <param name="PicturesPerSecond">Number of pictures a second.</param>
public sealed record CameraFaults(
    double Noise = 0.003,
    double GapsPerSecond = 0.1,
    double GapSeconds = 0.3,
    double Mistaken = 1 / 200.0,
    double PicturesPerSecond = 50
);

/// <summary>A camera over a made-up table: sees still balls, and a stroke that was simulated, with noise, gaps and mistakes.</summary>
public sealed class MadeUpCamera(CameraFaults faults, Random random)
{
    private const int Kinds = 8;
    private readonly Dictionary<Ball, double> _blindFor = [];
    private double _blind;

    /// <summary>The camera's clock: of the next picture, s.</summary>
    public double Time { get; private set; }

    /// <summary>Sees balls that lie still for some seconds.</summary>
    public IEnumerable<Sighting> Still(IReadOnlyList<PlacedBall> balls, double seconds)
    {
        for (var until = Time + seconds; Time < until; Next())
            foreach (var sighting in Picture(balls))
                yield return sighting;
    }

    /// <summary>Sees a stroke from the strike until everything has come to rest.</summary>
    public IEnumerable<Sighting> Stroke(Layout layout, ShotRecord record)
    {
        List<BallMotionSeen> motions = [.. layout.Balls.Select((b, slot) => new BallMotionSeen(b, slot, record))];
        var ends = record.Pieces.Count == 0 ? 0 : record.Pieces.Max(p => p.End);
        for (var start = Time; Time < start + ends; Next())
        {
            var t = Time - start;
            foreach (var sighting in Picture(motions.Where(m => m.IsThereAt(t)).Select(m => new PlacedBall(m.Ball, m.At(t)))))
                yield return sighting;
        }
    }

    private void Next() => Time += 1 / faults.PicturesPerSecond;

    private IEnumerable<Sighting> Picture(IEnumerable<PlacedBall> balls)
    {
        var chance = faults.GapsPerSecond / faults.PicturesPerSecond;
        if (random.NextDouble() < chance)
            _blind = Time + faults.GapSeconds;
        var isBlind = Time < _blind;
        foreach (var ball in balls)
        {
            if (random.NextDouble() < chance / 4)
                _blindFor[ball.Ball] = Time + faults.GapSeconds;
            if (isBlind || _blindFor.GetValueOrDefault(ball.Ball, double.NegativeInfinity) > Time)
                continue;
            var (x, y) = Normal.Pair(random);
            var taken = random.NextDouble() < faults.Mistaken ? Another(ball.Ball) : ball.Ball;
            yield return new(Time, taken, ball.At + faults.Noise * new Vec2(x, y), faults.Noise);
        }
    }

    private Ball Another(Ball ball)
    {
        var kind = Math.Min(ball.Index, Kinds - 1);
        return Ball.FromIndex((kind + random.Next(1, Kinds)) % Kinds);
    }

    /// <summary>One ball of a simulated stroke by time.</summary>
    private sealed class BallMotionSeen(PlacedBall placed, int slot, ShotRecord record)
    {
        private readonly List<PathPiece> _pieces = [.. record.Pieces.Where(p => p.Ball == slot).OrderBy(p => p.Start)];
        private readonly double _goneAt = record
            .Events.Where(e => e.Ball == slot && e.Kind is ShotEventKind.Pot or ShotEventKind.Off)
            .Select(e => e.Time)
            .DefaultIfEmpty(double.PositiveInfinity)
            .First();

        public Ball Ball { get; } = placed.Ball;

        public bool IsThereAt(double time) => time < _goneAt;

        public Vec2 At(double time)
        {
            var at = placed.At;
            foreach (var piece in _pieces)
            {
                if (piece.Start > time)
                    break;
                at = piece.At(Math.Min(time, piece.End));
            }
            return at;
        }
    }
}
