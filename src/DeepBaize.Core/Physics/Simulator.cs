using System.Numerics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Physics;

/// <summary>
/// Plays a stroke out to the end, from event to event: between events every ball has a closed form
/// (Leckie &amp; Greenspan 2005), so there is no time step. See docs/model.md.
/// </summary>
/// <remarks>
/// One instance serves one thread, shot after shot, without allocating. Balls live in slots 0…<see cref="Count"/>−1 in the
/// order in which they were placed. The same input gives the same output, bit for bit, on one machine.
/// </remarks>
public sealed partial class Simulator
{
    /// <summary>Gaps below this count as touching; m.</summary>
    private const double Touching = 1e-9;

    /// <summary>The length that is neglected where nothing else is said, m: far less than the millimetre that the model promises.</summary>
    public const double Fine = 1e-7;

    /// <summary>
    /// For strokes played by the thousand with a player's errors, which part them by centimetres. Balls may then rest in one another by a
    /// few of it: read from such a table, but do not hand it on as a position.
    /// </summary>
    public const double Coarse = 5e-6;

    /// <summary>Contacts gentler than this are not written down; m/s.</summary>
    internal const double WorthRecording = 1e-3;

    /// <summary>
    /// Far more than any shot needs (a hard break-off takes under a thousand); after that the balls are stopped where they are.
    /// </summary>
    public const int MaxEvents = 200_000;

    private const byte ToPhaseEnd = 0,
        ToNose = 1,
        ToJaw = 2,
        ToDrop = 3,
        ToOff = 4;

    /// <summary>In place of a pocket: off the table.</summary>
    private const int OffTable = 6;

    private readonly Conditions _conditions;
    private readonly Cloth _cloth;
    private readonly CushionContact _cushion;
    private readonly PocketShape[] _pockets;
    private readonly Noses _noses;
    private readonly ClusterSolver _solver;

    /// <summary>
    /// Touching things that approach more slowly than <see cref="_slowApproach"/>, m/s, are left alone until they overlap by this, m. So a
    /// ball that is pressed against another, or against a cushion, bounces a bounded number of times a second and not infinitely often.
    /// </summary>
    private readonly double _giveWay,
        _slowApproach;

    private readonly MovingBall[] _balls = new MovingBall[Ball.Count];
    private readonly int[] _pocket = new int[Ball.Count];
    private readonly Ball[] _names = new Ball[Ball.Count];

    // What comes next for each ball by itself (absolute time), and with which other ball; and the box it stays in until then, empty once
    // it is potted. Scanned some balls at a time (Prediction.cs): slots beyond the last ball never come next and are in nobody's way.
    private readonly double[] _ownTime = new double[Slots],
        _pairTime = new double[Slots];
    private readonly byte[] _ownKind = new byte[Ball.Count],
        _partner = new byte[PartnerSlots];
    private readonly int[] _ownIndex = new int[Ball.Count];
    private readonly double[] _minX = new double[Slots],
        _maxX = new double[Slots];
    private readonly double[] _minY = new double[Slots],
        _maxY = new double[Slots];

    /// <summary>Whose motion has changed since the last prediction: a bit for each slot.</summary>
    private uint _stale;

    /// <summary>Who touches each ball, a bit each.</summary>
    private readonly uint[] _touching = new uint[Ball.Count];

    private ShotRecord? _record;

    // How often each ball has come off a straight nose, and the first ball that the white met; −1 while there is none.
    private readonly int[] _rebounds = new int[Ball.Count];
    private int _struck;

    /// <param name="neglected">The length that makes no difference, m: <see cref="Fine"/> or <see cref="Coarse"/>.</param>
    public Simulator(TableShape shape, double neglected = Fine)
    {
        _conditions = shape.Conditions;
        _cloth = new(_conditions, neglected);
        _cushion = new(_conditions);
        _pockets = [.. shape.PocketShapes];
        (_giveWay, _slowApproach) = (4 * neglected, 10 * neglected);
        _noses = new(shape);
        _solver = new(shape, _cloth, _cushion, step: neglected <= Fine ? 8e-6 : 16e-6);
    }

    /// <summary>The conditions of the table.</summary>
    public Conditions Conditions => _conditions;

    /// <summary>Number of balls that were placed.</summary>
    public int Count { get; private set; }

    /// <summary>Seconds from the strike until the last ball is still or potted.</summary>
    public double Duration { get; private set; }

    /// <summary>How many events the last shot took.</summary>
    public int EventCount { get; private set; }

    /// <summary>Returns the ball in a slot.</summary>
    public Ball BallIn(int slot) => _names[slot];

    /// <summary>x of the ball in a slot, m.</summary>
    public double X(int slot) => _balls[slot].X;

    /// <summary>y of the ball in a slot, m.</summary>
    public double Y(int slot) => _balls[slot].Y;

    /// <summary>Where a ball's centre is, m; of a potted one where it went in.</summary>
    public Vec2 At(int slot) => new(_balls[slot].X, _balls[slot].Y);

    /// <summary>Where a ball was potted; null if it was not.</summary>
    public Pocket? PocketOf(int slot) => _pocket[slot] is >= 0 and not OffTable ? (Pocket)_pocket[slot] : null;

    /// <summary>Whether a ball is neither potted nor off the table.</summary>
    public bool IsOnTable(int slot) => _pocket[slot] < 0;

    /// <summary>The balls that are still on the table, where they are, in the order of their slots.</summary>
    /// <param name="except">A slot that is left out.</param>
    public List<PlacedBall> Left(int except = -1)
    {
        var left = new List<PlacedBall>(Count);
        for (var slot = 0; slot < Count; slot++)
            if (slot != except && IsOnTable(slot))
                left.Add(new(_names[slot], At(slot)));
        return left;
    }

    /// <summary>Whether a ball has left the table.</summary>
    public bool IsOff(int slot) => _pocket[slot] == OffTable;

    /// <summary>Energy per unit mass of all balls still on the table, that of height and of what is pressed too, J/kg.</summary>
    public double Energy
    {
        get
        {
            double sum = 0;
            for (var i = 0; i < Count; i++)
                if (_pocket[i] < 0)
                    sum += _balls[i].Motion.Energy + _conditions.Gravity * _balls[i].Z + (_cluster == 0 ? 0 : PressedEnergy(i));
            return sum;
        }
    }

    /// <summary>Called after each event with the time, if set: for tests that watch invariants.</summary>
    public Action<double>? AfterEvent { get; set; }

    /// <summary>By how much cushions are off in the next stroke; none once balls are placed.</summary>
    public ReboundError ReboundError { get; set; }

    /// <summary>Puts balls at rest on the table. They are taken as already checked (<see cref="Layout"/>).</summary>
    public void Place(ReadOnlySpan<PlacedBall> balls)
    {
        Count = balls.Length;
        ReboundError = default;
        for (var i = 0; i < balls.Length; i++)
        {
            _balls[i] = new() { X = balls[i].X, Y = balls[i].Y };
            (_names[i], _pocket[i]) = (balls[i].Ball, -1);
        }
        for (var i = Count; i < Slots; i++)
            KeepOut(i);
        _touching.AsSpan().Clear();
        for (var i = 0; i < Count; i++)
            for (var j = 0; j < i; j++)
                if (IsTouch((At(i) - At(j)).SquaredLength))
                    Touch(i, j, true);
    }

    /// <summary>Strikes the ball in a slot and plays the shot out.</summary>
    /// <param name="slot">Of the ball struck, by default the first.</param>
    public void Play(in Strike strike, ShotRecord? record = null, int slot = 0)
    {
        var launch = strike.Launch(_conditions);
        _balls[slot].Motion = launch;
        Start(record);
        Note(0, ShotEventKind.Strike, slot, -1, null, Math.Sqrt(launch.Vx * launch.Vx + launch.Vy * launch.Vy));
        RunToEnd();
    }

    /// <summary>Sets a ball in motion as given and plays out; for what is not a strike.</summary>
    /// <param name="until">Asked after each event whether enough has been seen: then the balls are left in motion.</param>
    public void Release(ReadOnlySpan<(int Slot, BallMotion Motion)> balls, ShotRecord? record = null, Func<bool>? until = null)
    {
        foreach (var (slot, motion) in balls)
            _balls[slot].Motion = motion;
        Start(record);
        RunToEnd(until);
    }

    private void Start(ShotRecord? record)
    {
        _record = record;
        record?.Clear();
        Duration = 0;
        EventCount = 0;
        _struck = -1;
        _rebounds.AsSpan().Clear();
        for (var i = 0; i < Count; i++)
            _balls[i].Begin(0, _cloth);
        _cluster = 0;
        _pairTime.AsSpan().Fill(double.PositiveInfinity);
        _partner.AsSpan().Fill(Nobody);
        _stale = (uint)((1L << Count) - 1);
        PredictStale(0);
    }

    private void RunToEnd(Func<bool>? until = null)
    {
        while (true)
        {
            var (time, slot, isPair) = Next();
            var isCluster = _cluster != 0 && _clusterTime <= time;
            if (slot < 0 && !isCluster)
                break;
            if (++EventCount > MaxEvents)
            {
                for (var i = 0; i < Count; i++)
                    if (_pocket[i] < 0)
                        Stop(i, time);
                break;
            }
            if (isCluster)
                time = GoOnSoftly(_cluster);
            else if (!isPair)
                Own(slot, time);
            else if (IsAlone(slot, _partner[slot], time))
            {
                Meet(slot, _partner[slot], time);
                Settle(time);
            }
            else
                time = MeetSoftly(slot, _partner[slot], time);
            PredictStale(time);
            AfterEvent?.Invoke(time);
            if (until is not null && until())
                break;
        }
        _record?.SortEvents();
    }

    // ---- Events -------------------------------------------------------------------------------------------------

    private void Own(int i, double time)
    {
        Advance(i, time);
        ref var ball = ref _balls[i];
        switch (_ownKind[i])
        {
            case ToPhaseEnd when ball.Phase == Phase.Sliding:
                ball.EndSlide();
                ball.Begin(time, _cloth);
                if (ball.Phase == Phase.Rolling)
                    Note(time, ShotEventKind.Roll, i, -1, null, ball.Speed);
                else
                    Stopped(i, time);
                break;
            case ToPhaseEnd when ball.IsInAir:
                if (ball.Lands)
                {
                    Note(time, ShotEventKind.Bed, i, -1, null, -ball.Motion.Vz);
                    ball.Z = 0;
                }
                else
                    ball.Z = Landing.OverAll;
                GoOn(i, time);
                break;
            case ToPhaseEnd when ball.RollsOn:
                ball.RollOn();
                GoOn(i, time);
                break;
            case ToPhaseEnd:
                Stop(i, time);
                break;
            case ToNose:
                var (kx, ky) = _ownIndex[i] switch
                {
                    0 => (-1.0, 0.0),
                    1 => (1.0, 0.0),
                    2 => (0.0, -1.0),
                    _ => (0.0, 1.0),
                };
                // One that comes down from above a nose is not carried off it.
                if (!ball.IsInAir)
                {
                    var (x, y) = (ball.X, ball.Y);
                    KeepOffNose(ref ball, _ownIndex[i]);
                    if (Math.Abs(ball.X - x) + Math.Abs(ball.Y - y) > Landed)
                        MakeRoom(i, new(-ky, kx), time);
                }
                Rebound(i, kx, ky, time, ShotEventKind.Cushion, null);
                break;
            case ToJaw:
                var pocket = _pockets[_ownIndex[i] >> 1];
                var jaw = (_ownIndex[i] & 1) == 0 ? pocket.JawA : pocket.JawB;
                var (dx, dy) = (jaw.X - ball.X, jaw.Y - ball.Y);
                var distance = Math.Sqrt(dx * dx + dy * dy);
                (dx, dy) = (dx / distance, dy / distance);
                var overlap = jaw.Radius + BallRadius - distance;
                if (overlap > 0 && !ball.IsInAir)
                    (ball.X, ball.Y) = (ball.X - overlap * dx, ball.Y - overlap * dy);
                Rebound(i, dx, dy, time, ShotEventKind.Jaw, pocket.Pocket);
                break;
            default:
                var isOff = _ownKind[i] == ToOff;
                Note(time, isOff ? ShotEventKind.Off : ShotEventKind.Pot, i, -1, isOff ? null : (Pocket)_ownIndex[i], ball.Speed);
                _pocket[i] = isOff ? OffTable : _ownIndex[i];
                for (var left = _touching[i]; left != 0; left &= left - 1)
                    Touch(i, BitOperations.TrailingZeroCount(left), false);
                (ball.Motion, ball.Z) = (default, 0);
                ball.Begin(time, _cloth);
                Duration = time;
                break;
        }
        _stale |= 1u << i;
    }

    /// <summary>Farther within a nose than this, m, a ball has come down on it, and is no longer where it was met.</summary>
    private const double Landed = 1e-4;

    /// <summary>Moves a ball that was put off a nose along the nose until it overlaps no other ball, or is between two for good.</summary>
    /// <param name="along">Unit vector along the nose.</param>
    private void MakeRoom(int i, Vec2 along, double time)
    {
        ref var ball = ref _balls[i];
        const int mostTries = 8;
        const double reach = 2 * BallRadius + 1e-9;
        for (var (tries, j) = (0, 0); j < Count && tries < mostTries; j++)
        {
            if (j == i || _pocket[j] >= 0 || _balls[j].IsInAir)
                continue;
            _balls[j].At(Math.Max(time, _balls[j].Since), out var x, out var y, out _, out _);
            var away = new Vec2(ball.X - x, ball.Y - y);
            if (away.SquaredLength >= 4 * BallRadius * BallRadius)
                continue;
            var (on, off) = (away.Dot(along), away.Cross(along));
            var by = Math.CopySign(Math.Sqrt(reach * reach - off * off), on) - on;
            (ball.X, ball.Y) = (ball.X + by * along.X, ball.Y + by * along.Y);
            // Another may be in the way now.
            (tries, j) = (tries + 1, -1);
        }
    }

    private static void KeepOffNose(ref MovingBall ball, int side)
    {
        switch (side)
        {
            case 0:
                ball.X = Math.Max(ball.X, BallRadius);
                break;
            case 1:
                ball.X = Math.Min(ball.X, Length - BallRadius);
                break;
            case 2:
                ball.Y = Math.Max(ball.Y, BallRadius);
                break;
            default:
                ball.Y = Math.Min(ball.Y, Width - BallRadius);
                break;
        }
    }

    private void Rebound(int i, double kx, double ky, double time, ShotEventKind kind, Pocket? pocket)
    {
        ref var ball = ref _balls[i];
        var approach = ball.Motion.Vx * kx + ball.Motion.Vy * ky;
        if (approach > WorthRecording)
            Note(time, kind, i, -1, pocket, approach);
        if (approach > 0)
            ball.Motion = _cushion.Rebound(ball.Motion, kx, ky, ball.Z);
        if (approach > WorthRecording && kind == ShotEventKind.Cushion)
            ball.Motion = Turned(ball.Motion, kx, ky, ReboundError.TurnDegrees(i, _rebounds[i]++, _struck));
        GoOn(i, time);
    }

    /// <summary>A ball that leaves a cushion, turned by so much, but never back into it.</summary>
    private static BallMotion Turned(in BallMotion motion, double kx, double ky, double degrees)
    {
        if (degrees == 0)
            return motion;
        var (off, along) = (-motion.Vx * kx - motion.Vy * ky, motion.Vy * kx - motion.Vx * ky);
        // Towards the nose at most half of the way there.
        var most = Math.Atan2(off, Math.Abs(along)) / 2;
        var angle = degrees * Math.PI / 180;
        var turn = along > 0 ? Math.Max(angle, -most) : Math.Min(angle, most);
        return motion.Turned(along > 0 ? Math.Min(turn, Math.PI / 4) : Math.Max(turn, -Math.PI / 4));
    }

    /// <summary>The white has met a ball: what it does after that is past its work.</summary>
    private void NoteStruck(int i, int j)
    {
        if (_struck < 0 && (i == 0 || j == 0))
            _struck = i + j;
    }

    private void Meet(int i, int j, double time)
    {
        Advance(i, time);
        Advance(j, time);
        ref var a = ref _balls[i];
        ref var b = ref _balls[j];
        if (a.IsLifted || b.IsLifted)
        {
            MeetInSpace(i, j, time);
            return;
        }
        var (dx, dy) = (b.X - a.X, b.Y - a.Y);
        var distance = Math.Sqrt(dx * dx + dy * dy);
        (dx, dy) = (dx / distance, dy / distance);
        var (va, vb) = (a.Motion.Vx * dx + a.Motion.Vy * dy, b.Motion.Vx * dx + b.Motion.Vy * dy);
        if (va - vb > 0)
        {
            NoteStruck(i, j);
            if (va - vb > WorthRecording)
            {
                var runner = Math.Abs(va) >= Math.Abs(vb) ? i : j;
                Note(time, ShotEventKind.Ball, runner, i + j - runner, null, va - vb);
            }
            (a.Motion, b.Motion) = BallContact.Collide(a.Motion, b.Motion, dx, dy, _conditions);
        }
        var overlap = 2 * BallRadius - distance;
        if (overlap > 0)
        {
            (a.X, a.Y) = (a.X - overlap / 2 * dx, a.Y - overlap / 2 * dy);
            (b.X, b.Y) = (b.X + overlap / 2 * dx, b.Y + overlap / 2 * dy);
        }
        _stale |= 1u << i | 1u << j;
    }

    /// <summary>Collides two balls of which at least one is off the bed.</summary>
    private void MeetInSpace(int i, int j, double time)
    {
        ref var a = ref _balls[i];
        ref var b = ref _balls[j];
        var (dx, dy, dz) = (b.X - a.X, b.Y - a.Y, b.Z - a.Z);
        var distance = Math.Sqrt(dx * dx + dy * dy + dz * dz);
        (dx, dy, dz) = (dx / distance, dy / distance, dz / distance);
        var va = a.Motion.Vx * dx + a.Motion.Vy * dy + a.Motion.Vz * dz;
        var vb = b.Motion.Vx * dx + b.Motion.Vy * dy + b.Motion.Vz * dz;
        if (va - vb > 0)
        {
            NoteStruck(i, j);
            if (va - vb > WorthRecording)
            {
                var runner = Math.Abs(va) >= Math.Abs(vb) ? i : j;
                Note(time, ShotEventKind.Ball, runner, i + j - runner, null, va - vb);
            }
            (a.Motion, b.Motion) = BallContact.Collide(a.Motion, b.Motion, dx, dy, dz, _conditions);
            HeldByBed(ref a);
            HeldByBed(ref b);
        }
        var overlap = 2 * BallRadius - distance;
        if (overlap > 0)
        {
            (a.X, a.Y, a.Z) = (a.X - overlap / 2 * dx, a.Y - overlap / 2 * dy, Math.Max(0, a.Z - overlap / 2 * dz));
            (b.X, b.Y, b.Z) = (b.X + overlap / 2 * dx, b.Y + overlap / 2 * dy, Math.Max(0, b.Z + overlap / 2 * dz));
        }
        _stale |= 1u << i | 1u << j;
    }

    /// <summary>Carries a contact on through all that touch, pair by pair, until none approach; only then they move.</summary>
    private void Settle(double time)
    {
        for (var open = _stale; open != 0 && EventCount < MaxEvents;)
        {
            var i = BitOperations.TrailingZeroCount(open);
            var j = PressedBy(i, time);
            if (j < 0)
            {
                open &= open - 1;
                continue;
            }
            EventCount++;
            Meet(i, j, time);
            open |= 1u << j;
        }
        for (var left = _stale; left != 0; left &= left - 1)
            GoOn(BitOperations.TrailingZeroCount(left), time);
    }

    /// <summary>Who touches this ball, which has been brought to this moment, and bounces off it; −1 if nobody.</summary>
    private int PressedBy(int i, double time)
    {
        ref var ball = ref _balls[i];
        for (var near = _touching[i]; near != 0; near &= near - 1)
        {
            var j = BitOperations.TrailingZeroCount(near);
            _balls[j].At(time, out var x, out var y, out var vx, out var vy);
            _balls[j].HeightAt(time, _conditions.Gravity, out var z, out var vz);
            var (dx, dy, dz) = (ball.X - x, ball.Y - y, ball.Z - z);
            var approach = -(dx * (ball.Motion.Vx - vx) + dy * (ball.Motion.Vy - vy) + dz * (ball.Motion.Vz - vz)) / (2 * BallRadius);
            if (IsTouch(dx * dx + dy * dy + dz * dz) && approach > _slowApproach)
                return j;
        }
        return -1;
    }

    /// <summary>On the bed a ball cannot go down: it gets its impulse from the bed in the same instant.</summary>
    private void HeldByBed(ref MovingBall ball)
    {
        if (ball.Motion.Vz < 0 && ball.Z <= 0)
            ball.Motion = Landing.Of(ball.Motion, -ball.Motion.Vz, _conditions);
    }

    /// <summary>After a contact: as the ball moves now, which may be no more.</summary>
    private void GoOn(int i, double time)
    {
        ref var ball = ref _balls[i];
        var moved = ball.Phase != Phase.AtRest;
        HeldByBed(ref ball);
        ball.Begin(time, _cloth);
        if (moved && _balls[i].Phase == Phase.AtRest)
            Stopped(i, time);
    }

    private void Stop(int i, double time)
    {
        Advance(i, time);
        (_balls[i].Motion, _balls[i].Z) = (new(0, 0, 0, 0, _balls[i].Motion.Wz), 0);
        _balls[i].Begin(time, _cloth);
        Stopped(i, time);
    }

    private void Stopped(int i, double time)
    {
        Note(time, ShotEventKind.Stop, i, -1, null, 0);
        Duration = time;
    }

    private void Advance(int i, double time)
    {
        ref var b = ref _balls[i];
        if (_record is null || time <= b.Since || b.Phase == Phase.AtRest)
        {
            b.Advance(time, _cloth);
            return;
        }
        var begun = b;
        b.Advance(time, _cloth);
        _record.Pieces.Add(
            new(i, begun.Since, time, begun.X, begun.Y, begun.Motion.Vx, begun.Motion.Vy, begun.Ax, begun.Ay)
            {
                Height = begun.IsInAir ? (begun.Z, begun.Motion.Vz, -_cloth.Gravity) : default,
                Turning = (SpinOf(begun.Motion), SpinOf(b.Motion)),
            }
        );
    }

    private static Spin SpinOf(in BallMotion m) => new(m.Wx, m.Wy, m.Wz);

    private void Note(double time, ShotEventKind kind, int ball, int other, Pocket? pocket, double speed) =>
        _record?.Events.Add(new(time, kind, ball, other, X(ball), Y(ball), pocket, speed));
}
