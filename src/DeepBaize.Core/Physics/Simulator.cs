using System.Runtime.CompilerServices;
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
public sealed class Simulator
{
    /// <summary>Gaps below this count as touching; m.</summary>
    private const double Touching = 1e-9;

    /// <summary>
    /// Touching things that approach more slowly than this are left alone until they overlap by <see cref="GiveWay"/>; m/s. So a ball
    /// that is pressed against another, or against a cushion, bounces a bounded number of times a second and not infinitely often.
    /// </summary>
    private const double SlowApproach = 1e-6;

    /// <summary>Overlap that a pressing contact may reach before it is resolved and undone; m.</summary>
    private const double GiveWay = 0.4e-6;

    /// <summary>Slip or speed below this is none; m/s.</summary>
    private const double Still = 1e-8;

    /// <summary>Contacts gentler than this are not written down; m/s.</summary>
    private const double WorthRecording = 1e-3;

    /// <summary>Far more than any shot needs (a hard break-off takes under a thousand); after that the balls are stopped where they are.</summary>
    public const int MaxEvents = 200_000;

    private const byte AtRest = 0, Sliding = 1, Rolling = 2;
    private const byte ToTransition = 0, ToNose = 1, ToJaw = 2, ToDrop = 3;

    private readonly CushionContact _cushion;
    private readonly Conditions _conditions;
    private readonly PocketShape[] _pockets;
    private readonly double _slideDeceleration, _rollDeceleration, _spinDeceleration;
    private readonly double _cornerNose, _middleNoseLow, _middleNoseHigh;

    // State of each ball at its own time _since.
    private readonly double[] _x = new double[Ball.Count], _y = new double[Ball.Count];
    private readonly double[] _vx = new double[Ball.Count], _vy = new double[Ball.Count];
    private readonly double[] _ax = new double[Ball.Count], _ay = new double[Ball.Count];
    private readonly double[] _wx = new double[Ball.Count], _wy = new double[Ball.Count], _wz = new double[Ball.Count];
    private readonly double[] _since = new double[Ball.Count], _pieceEnd = new double[Ball.Count];
    private readonly byte[] _motion = new byte[Ball.Count];
    private readonly int[] _pocket = new int[Ball.Count];
    private readonly Ball[] _ball = new Ball[Ball.Count];

    // What comes next for each ball by itself (absolute time), and with which other ball; and the box it stays in until then.
    private readonly double[] _ownTime = new double[Ball.Count], _pairTime = new double[Ball.Count];
    private readonly byte[] _ownKind = new byte[Ball.Count];
    private readonly int[] _ownIndex = new int[Ball.Count], _partner = new int[Ball.Count];
    private readonly double[] _minX = new double[Ball.Count], _maxX = new double[Ball.Count];
    private readonly double[] _minY = new double[Ball.Count], _maxY = new double[Ball.Count];
    private readonly bool[] _stale = new bool[Ball.Count], _anew = new bool[Ball.Count];

    private ShotRecord? _record;

    public Simulator(TableShape shape)
    {
        _conditions = shape.Conditions;
        _cushion = new(_conditions);
        _pockets = [.. shape.PocketShapes];
        _slideDeceleration = _conditions.SlidingFriction * _conditions.Gravity;
        _rollDeceleration = _conditions.RollingFriction * _conditions.Gravity;
        _spinDeceleration = _conditions.SpinDeceleration;
        _cornerNose = shape.CornerNoseStart;
        _middleNoseLow = Length / 2 - shape.MiddleNoseEnd;
        _middleNoseHigh = Length / 2 + shape.MiddleNoseEnd;
    }

    public Conditions Conditions => _conditions;

    public int Count { get; private set; }

    /// <summary>Seconds from the strike until the last ball is still or potted.</summary>
    public double Duration { get; private set; }

    /// <summary>How many events the last shot took.</summary>
    public int EventCount { get; private set; }

    public Ball BallIn(int slot) => _ball[slot];
    public double X(int slot) => _x[slot];
    public double Y(int slot) => _y[slot];
    public Pocket? PocketOf(int slot) => _pocket[slot] < 0 ? null : (Pocket)_pocket[slot];

    /// <summary>Kinetic energy per unit mass of all balls that are still on the table, J/kg.</summary>
    public double Energy
    {
        get
        {
            double sum = 0;
            for (var i = 0; i < Count; i++)
                if (_pocket[i] < 0) sum += MotionOf(i).Energy;
            return sum;
        }
    }

    /// <summary>Called after each event with the time, if set: for tests that watch invariants.</summary>
    public Action<double>? AfterEvent { get; set; }

    /// <summary>Puts balls at rest on the table. They are taken as already checked (<see cref="Layout"/>).</summary>
    public void Place(ReadOnlySpan<PlacedBall> balls)
    {
        Count = balls.Length;
        for (var i = 0; i < balls.Length; i++)
        {
            (_ball[i], _x[i], _y[i]) = (balls[i].Ball, balls[i].X, balls[i].Y);
            _vx[i] = _vy[i] = _wx[i] = _wy[i] = _wz[i] = _since[i] = 0;
            _pocket[i] = -1;
        }
    }

    /// <summary>Strikes the ball in a slot and plays the shot out.</summary>
    /// <param name="slot">Of the ball struck, by default the first.</param>
    public void Play(in Strike strike, ShotRecord? record = null, int slot = 0)
    {
        var launch = strike.Launch(_conditions);
        SetMotion(slot, launch);
        Start(record);
        record?.Events.Add(new(0, ShotEventKind.Strike, slot, -1, _x[slot], _y[slot], null, Math.Sqrt(launch.Vx * launch.Vx + launch.Vy * launch.Vy)));
        RunToEnd();
    }

    /// <summary>Sets a ball in motion as given and plays out; for what is not a strike.</summary>
    /// <param name="until">Asked after each event whether enough has been seen: then the balls are left in motion.</param>
    public void Release(ReadOnlySpan<(int Slot, BallMotion Motion)> balls, ShotRecord? record = null, Func<bool>? until = null)
    {
        foreach (var (slot, motion) in balls) SetMotion(slot, motion);
        Start(record);
        RunToEnd(until);
    }

    private void Start(ShotRecord? record)
    {
        _record = record;
        record?.Clear();
        Duration = 0;
        EventCount = 0;
        for (var i = 0; i < Count; i++) BeginPiece(i, 0);
        _pairTime.AsSpan(0, Count).Fill(double.PositiveInfinity);
        _stale.AsSpan(0, Count).Fill(true);
        PredictStale(0);
    }

    private void RunToEnd(Func<bool>? until = null)
    {
        while (true)
        {
            var (time, slot, isPair) = Next();
            if (slot < 0) break;
            if (++EventCount > MaxEvents)
            {
                for (var i = 0; i < Count; i++) if (_pocket[i] < 0) Stop(i, time);
                break;
            }
            if (isPair) Meet(slot, _partner[slot], time);
            else Own(slot, time);
            PredictStale(time);
            AfterEvent?.Invoke(time);
            if (until is not null && until()) break;
        }
    }

    private (double Time, int Slot, bool IsPair) Next()
    {
        var best = double.PositiveInfinity;
        var slot = -1;
        var pair = false;
        for (var i = 0; i < Count; i++)
        {
            if (_pairTime[i] < best) (best, slot, pair) = (_pairTime[i], i, true);
            if (_ownTime[i] < best) (best, slot, pair) = (_ownTime[i], i, false);
        }
        return (best, slot, pair);
    }

    // ---- Events -------------------------------------------------------------------------------------------------

    private void Own(int i, double time)
    {
        Advance(i, time);
        switch (_ownKind[i])
        {
            case ToTransition when _motion[i] == Sliding:
                (_wx[i], _wy[i]) = (-_vy[i] / BallRadius, _vx[i] / BallRadius);
                BeginPiece(i, time);
                if (_motion[i] == Rolling) Note(time, ShotEventKind.Roll, i, -1, null, Speed(i));
                else Stopped(i, time);
                break;
            case ToTransition:
                Stop(i, time);
                break;
            case ToNose:
                var (kx, ky) = _ownIndex[i] switch { 0 => (-1.0, 0.0), 1 => (1.0, 0.0), 2 => (0.0, -1.0), _ => (0.0, 1.0) };
                KeepOffNose(i, _ownIndex[i]);
                Rebound(i, kx, ky, time, ShotEventKind.Cushion, null);
                break;
            case ToJaw:
                var pocket = _pockets[_ownIndex[i] >> 1];
                var jaw = (_ownIndex[i] & 1) == 0 ? pocket.JawA : pocket.JawB;
                var (dx, dy) = (jaw.X - _x[i], jaw.Y - _y[i]);
                var distance = Math.Sqrt(dx * dx + dy * dy);
                (dx, dy) = (dx / distance, dy / distance);
                var overlap = jaw.Radius + BallRadius - distance;
                if (overlap > 0) (_x[i], _y[i]) = (_x[i] - overlap * dx, _y[i] - overlap * dy);
                Rebound(i, dx, dy, time, ShotEventKind.Jaw, pocket.Pocket);
                break;
            default:
                Note(time, ShotEventKind.Pot, i, -1, (Pocket)_ownIndex[i], Speed(i));
                _pocket[i] = _ownIndex[i];
                Stop(i, time, potted: true);
                break;
        }
        _stale[i] = true;
    }

    private void KeepOffNose(int i, int side)
    {
        switch (side)
        {
            case 0: _x[i] = Math.Max(_x[i], BallRadius); break;
            case 1: _x[i] = Math.Min(_x[i], Length - BallRadius); break;
            case 2: _y[i] = Math.Max(_y[i], BallRadius); break;
            default: _y[i] = Math.Min(_y[i], Width - BallRadius); break;
        }
    }

    private void Rebound(int i, double kx, double ky, double time, ShotEventKind kind, Pocket? pocket)
    {
        var approach = _vx[i] * kx + _vy[i] * ky;
        if (approach > WorthRecording) Note(time, kind, i, -1, pocket, approach);
        if (approach > 0) SetMotion(i, _cushion.Rebound(MotionOf(i), kx, ky));
        BeginPiece(i, time);
    }

    private void Meet(int i, int j, double time)
    {
        Advance(i, time);
        Advance(j, time);
        var (dx, dy) = (_x[j] - _x[i], _y[j] - _y[i]);
        var distance = Math.Sqrt(dx * dx + dy * dy);
        (dx, dy) = (dx / distance, dy / distance);
        var overlap = 2 * BallRadius - distance;
        if (overlap > 0)
        {
            (_x[i], _y[i]) = (_x[i] - overlap / 2 * dx, _y[i] - overlap / 2 * dy);
            (_x[j], _y[j]) = (_x[j] + overlap / 2 * dx, _y[j] + overlap / 2 * dy);
        }
        var (vi, vj) = (_vx[i] * dx + _vy[i] * dy, _vx[j] * dx + _vy[j] * dy);
        if (vi - vj > 0)
        {
            if (vi - vj > WorthRecording)
            {
                var runner = Math.Abs(vi) >= Math.Abs(vj) ? i : j;
                Note(time, ShotEventKind.Ball, runner, i + j - runner, null, vi - vj);
            }
            var (a, b) = BallContact.Collide(MotionOf(i), MotionOf(j), dx, dy, _conditions);
            SetMotion(i, a);
            SetMotion(j, b);
        }
        BeginPiece(i, time);
        BeginPiece(j, time);
        _stale[i] = _stale[j] = true;
    }

    private void Stop(int i, double time, bool potted = false)
    {
        Advance(i, time);
        _vx[i] = _vy[i] = _wx[i] = _wy[i] = 0;
        if (potted) _wz[i] = 0;
        BeginPiece(i, time);
        if (!potted) Stopped(i, time);
        Duration = time;
    }

    private void Stopped(int i, double time)
    {
        Note(time, ShotEventKind.Stop, i, -1, null, 0);
        Duration = time;
    }

    private void Note(double time, ShotEventKind kind, int ball, int other, Pocket? pocket, double speed) =>
        _record?.Events.Add(new(time, kind, ball, other, _x[ball], _y[ball], pocket, speed));

    // ---- Motion on the cloth ------------------------------------------------------------------------------------

    private double Speed(int i) => Math.Sqrt(_vx[i] * _vx[i] + _vy[i] * _vy[i]);

    private BallMotion MotionOf(int i) => new(_vx[i], _vy[i], _wx[i], _wy[i], _wz[i]);

    private void SetMotion(int i, in BallMotion m) =>
        (_vx[i], _vy[i], _wx[i], _wy[i], _wz[i]) = (m.Vx, m.Vy, m.Wx, m.Wy, m.Wz);

    /// <summary>Works out from velocity and spin whether the ball slides, rolls or rests, and until when.</summary>
    private void BeginPiece(int i, double time)
    {
        _since[i] = time;
        var (ux, uy) = (_vx[i] - BallRadius * _wy[i], _vy[i] + BallRadius * _wx[i]);
        var slip = Math.Sqrt(ux * ux + uy * uy);
        if (slip > Still)
        {
            _motion[i] = Sliding;
            var a = -_slideDeceleration / slip;
            (_ax[i], _ay[i]) = (a * ux, a * uy);
            _pieceEnd[i] = time + 2 * slip / (7 * _slideDeceleration);
            return;
        }
        var speed = Speed(i);
        if (speed > Still)
        {
            _motion[i] = Rolling;
            var a = -_rollDeceleration / speed;
            (_ax[i], _ay[i]) = (a * _vx[i], a * _vy[i]);
            _pieceEnd[i] = time + speed / _rollDeceleration;
            return;
        }
        _motion[i] = AtRest;
        _vx[i] = _vy[i] = _wx[i] = _wy[i] = _ax[i] = _ay[i] = 0;
        _pieceEnd[i] = double.PositiveInfinity;
    }

    /// <summary>Brings a ball's state to a later time within its present piece of motion.</summary>
    private void Advance(int i, double time)
    {
        var t = time - _since[i];
        if (t <= 0) return;
        if (_motion[i] != AtRest)
        {
            _record?.Pieces.Add(new(i, _since[i], time, _x[i], _y[i], _vx[i], _vy[i], _ax[i], _ay[i]));
            _x[i] += t * (_vx[i] + 0.5 * _ax[i] * t);
            _y[i] += t * (_vy[i] + 0.5 * _ay[i] * t);
            _vx[i] += _ax[i] * t;
            _vy[i] += _ay[i] * t;
            if (_motion[i] == Sliding)
            {
                const double k = 5 / (2 * BallRadius);
                _wx[i] += k * _ay[i] * t;
                _wy[i] -= k * _ax[i] * t;
            }
            else (_wx[i], _wy[i]) = (-_vy[i] / BallRadius, _vx[i] / BallRadius);
        }
        if (_wz[i] != 0) _wz[i] = Math.CopySign(Math.Max(0, Math.Abs(_wz[i]) - _spinDeceleration * t), _wz[i]);
        _since[i] = time;
    }

    // ---- Prediction ---------------------------------------------------------------------------------------------

    /// <summary>Predicts anew for the balls whose motion has changed, and for those that were about to meet one of them.</summary>
    private void PredictStale(double now)
    {
        for (var i = 0; i < Count; i++)
        {
            _anew[i] = _stale[i] || (_pairTime[i] < double.PositiveInfinity && _stale[_partner[i]]);
            if (_anew[i]) _pairTime[i] = double.PositiveInfinity;
            if (_stale[i]) PredictOwn(i);
        }
        const double reach = 2 * BallRadius + 2 * Touching;
        for (var i = 0; i < Count; i++)
        {
            if (!_anew[i] || _pocket[i] >= 0) continue;
            var (minX, maxX, minY, maxY) = (_minX[i] - reach, _maxX[i] + reach, _minY[i] - reach, _maxY[i] + reach);
            var atRest = _motion[i] == AtRest;
            for (var j = 0; j < Count; j++)
            {
                if (_maxX[j] < minX || _minX[j] > maxX || _maxY[j] < minY || _minY[j] > maxY) continue;
                if (j == i || _pocket[j] >= 0 || (atRest && _motion[j] == AtRest)) continue;
                PredictPair(i, j, now);
            }
        }
        Array.Clear(_stale, 0, Count);
    }

    private void PredictOwn(int i)
    {
        if (_motion[i] == AtRest)
        {
            _ownTime[i] = double.PositiveInfinity;
            _minX[i] = _maxX[i] = _x[i];
            _minY[i] = _maxY[i] = _y[i];
            return;
        }
        var end = _pieceEnd[i] - _since[i];
        var (kind, index) = (ToTransition, 0);
        Bound(i, end);
        if (!InsideNoses(i))
        {
            if (_minX[i] < BallRadius) TryNose(i, 0, _x[i] - BallRadius, _vx[i], _ax[i], ref end, ref kind, ref index);
            if (_maxX[i] > Length - BallRadius) TryNose(i, 1, Length - BallRadius - _x[i], -_vx[i], -_ax[i], ref end, ref kind, ref index);
            if (_minY[i] < BallRadius) TryNose(i, 2, _y[i] - BallRadius, _vy[i], _ay[i], ref end, ref kind, ref index);
            if (_maxY[i] > Width - BallRadius) TryNose(i, 3, Width - BallRadius - _y[i], -_vy[i], -_ay[i], ref end, ref kind, ref index);
            if (kind == ToNose) Bound(i, end);
            for (var p = 0; p < _pockets.Length; p++)
            {
                ref readonly var mouth = ref _pockets[p];
                var box = mouth.Mouth;
                if (_maxX[i] < box.MinX || _minX[i] > box.MaxX || _maxY[i] < box.MinY || _minY[i] > box.MaxY) continue;
                TryCircle(i, mouth.JawA, BallRadius, ToJaw, 2 * p, ref end, ref kind, ref index);
                TryCircle(i, mouth.JawB, BallRadius, ToJaw, 2 * p + 1, ref end, ref kind, ref index);
                TryCircle(i, mouth.Drop, 0, ToDrop, p, ref end, ref kind, ref index);
            }
            if (kind > ToNose) Bound(i, end);
        }
        _ownTime[i] = _since[i] + end;
        _ownKind[i] = kind;
        _ownIndex[i] = index;
    }

    /// <summary>The box that the ball's centre stays in for this long.</summary>
    private void Bound(int i, double end)
    {
        (_minX[i], _maxX[i]) = Range(_x[i], _vx[i], _ax[i], end);
        (_minY[i], _maxY[i]) = Range(_y[i], _vy[i], _ay[i], end);
    }

    private static (double Min, double Max) Range(double p, double v, double a, double end)
    {
        var last = p + end * (v + 0.5 * a * end);
        var (min, max) = p < last ? (p, last) : (last, p);
        if (v * a < 0 && Math.Abs(v) < Math.Abs(a) * end)
        {
            var turn = p - 0.5 * v * v / a;
            (min, max) = (Math.Min(min, turn), Math.Max(max, turn));
        }
        return (min, max);
    }

    private bool InsideNoses(int i) =>
        _minX[i] > BallRadius && _maxX[i] < Length - BallRadius && _minY[i] > BallRadius && _maxY[i] < Width - BallRadius;

    private void TryNose(int i, int side, double gap, double v, double a, ref double end, ref byte kind, ref int index)
    {
        double t;
        if (gap < -1e-5)
        {
            // In a pocket's mouth: the jaws see to it, unless the ball comes out and back to the nose beyond.
            if (!(v > 0 && a < 0)) return;
            t = FirstCrossing.OfQuadratic(gap, v, 0.5 * a, end);
        }
        else if (gap >= Touching) t = FirstCrossing.OfQuadratic(gap, v, 0.5 * a, end);
        else if (-v > SlowApproach) t = 0;
        else t = FirstCrossing.OfQuadratic(Math.Max(gap + GiveWay, GiveWay / 2), v, 0.5 * a, end);
        if (!(t < end)) return;
        if (side < 2)
        {
            var y = _y[i] + t * (_vy[i] + 0.5 * _ay[i] * t);
            if (y < _cornerNose || y > Width - _cornerNose) return;
        }
        else
        {
            var x = _x[i] + t * (_vx[i] + 0.5 * _ax[i] * t);
            if (x < _cornerNose || x > Length - _cornerNose || (x > _middleNoseLow && x < _middleNoseHigh)) return;
        }
        (end, kind, index) = (t, ToNose, side);
    }

    private void TryCircle(int i, in Circle circle, double margin, byte toKind, int toIndex, ref double end, ref byte kind, ref int index)
    {
        var (px, py) = (_x[i] - circle.X, _y[i] - circle.Y);
        var reach = circle.Radius + margin;
        var touch = toKind == ToDrop ? 0 : Touching;
        var t = Closing(px, py, _vx[i], _vy[i], _ax[i], _ay[i], reach, touch, end);
        if (t < end) (end, kind, index) = (t, toKind, toIndex);
    }

    private void PredictPair(int i, int j, double now)
    {
        var until = Math.Min(Math.Min(_ownTime[i], _ownTime[j]), Math.Max(_pairTime[i], _pairTime[j]));
        StateAt(i, now, out var xi, out var yi, out var vxi, out var vyi);
        StateAt(j, now, out var xj, out var yj, out var vxj, out var vyj);
        var t = now + Closing(xi - xj, yi - yj, vxi - vxj, vyi - vyj, _ax[i] - _ax[j], _ay[i] - _ay[j], 2 * BallRadius, Touching, until - now);
        if (t < _pairTime[i]) (_pairTime[i], _partner[i]) = (t, j);
        if (t < _pairTime[j]) (_pairTime[j], _partner[j]) = (t, i);
    }

    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    private void StateAt(int i, double now, out double x, out double y, out double vx, out double vy)
    {
        var t = now - _since[i];
        (vx, vy) = (_vx[i] + _ax[i] * t, _vy[i] + _ay[i] * t);
        x = _x[i] + t * (_vx[i] + 0.5 * _ax[i] * t);
        y = _y[i] + t * (_vy[i] + 0.5 * _ay[i] * t);
    }

    /// <summary>When a point at p + v·t + a·t²/2 first comes within reach of the origin, on [0, end]; +∞ if it does not.</summary>
    private static double Closing(double px, double py, double vx, double vy, double ax, double ay, double reach, double touch, double end)
    {
        var c0 = px * px + py * py - reach * reach;
        var pv = px * vx + py * vy;
        if (c0 < 2 * reach * touch)
        {
            if (-pv > SlowApproach * reach || touch == 0) return 0;
            c0 = Math.Max(c0 + 2 * reach * GiveWay, reach * GiveWay);
        }
        return FirstCrossing.Of(c0, 2 * pv, vx * vx + vy * vy + px * ax + py * ay, vx * ax + vy * ay, 0.25 * (ax * ax + ay * ay), end);
    }
}
