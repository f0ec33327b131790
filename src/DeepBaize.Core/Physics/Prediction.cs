using System.Numerics;
using System.Runtime.Intrinsics;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Physics;

/// <summary>What comes next for every ball, and who comes next of all.</summary>
public sealed partial class Simulator
{
    /// <summary>Balls compared at a time, and room for them all in such groups.</summary>
    private const int Lanes = 4,
        Slots = 24;

    /// <summary>The partners, a byte each, fill one vector.</summary>
    private const int PartnerSlots = 32;

    private const byte Nobody = byte.MaxValue;

    /// <summary>The earliest event: of one ball by itself, or of it and its partner. No slot (−1) if nothing moves.</summary>
    private (double Time, int Slot, bool IsPair) Next()
    {
        ref var own = ref _ownTime[0];
        ref var pair = ref _pairTime[0];
        var least = Vector256.Create(double.PositiveInfinity);
        for (var k = 0; k < Count; k += Lanes)
            least = Vector256.Min(least, Vector256.Min(Vector256.LoadUnsafe(ref own, (nuint)k), Vector256.LoadUnsafe(ref pair, (nuint)k)));
        var time = Math.Min(Math.Min(least[0], least[1]), Math.Min(least[2], least[3]));
        if (double.IsPositiveInfinity(time))
            return (time, -1, false);
        var wanted = Vector256.Create(time);
        for (var k = 0; ; k += Lanes)
        {
            var pairs = Vector256.Equals(Vector256.LoadUnsafe(ref pair, (nuint)k), wanted).ExtractMostSignificantBits();
            var owns = Vector256.Equals(Vector256.LoadUnsafe(ref own, (nuint)k), wanted).ExtractMostSignificantBits();
            if ((pairs | owns) == 0)
                continue;
            var lane = BitOperations.TrailingZeroCount(pairs | owns);
            return (time, k + lane, (pairs >> lane & 1) != 0);
        }
    }

    /// <summary>Predicts anew for the balls whose motion has changed, and for those that were about to meet one of them.</summary>
    private void PredictStale(double now)
    {
        var anew = _stale;
        for (var left = _stale; left != 0; left &= left - 1)
        {
            var i = BitOperations.TrailingZeroCount(left);
            anew |= Vector256.Equals(Vector256.LoadUnsafe(ref _partner[0]), Vector256.Create((byte)i)).ExtractMostSignificantBits();
            PredictOwn(i);
        }
        for (var left = anew; left != 0; left &= left - 1)
        {
            var i = BitOperations.TrailingZeroCount(left);
            (_pairTime[i], _partner[i]) = (double.PositiveInfinity, Nobody);
        }
        var others = uint.MaxValue;
        for (var left = anew; left != 0; left &= left - 1)
        {
            var i = BitOperations.TrailingZeroCount(left);
            // Each pair once.
            others &= ~(1u << i);
            PredictPairs(i, WithinReach(i) & others, now);
        }
        _stale = 0;
    }

    /// <summary>Whose box comes within touch of this ball's.</summary>
    private uint WithinReach(int i)
    {
        const double reach = 2 * BallRadius + 2 * Touching;
        return WithinBox(_minX[i] - reach, _maxX[i] + reach, _minY[i] - reach, _maxY[i] + reach);
    }

    /// <summary>Whose box has a part in this one; m.</summary>
    private uint WithinBox(double fromX, double toX, double fromY, double toY)
    {
        var (minX, maxX) = (Vector256.Create(fromX), Vector256.Create(toX));
        var (minY, maxY) = (Vector256.Create(fromY), Vector256.Create(toY));
        var near = 0u;
        for (var k = 0; k < Count; k += Lanes)
        {
            var at = (nuint)k;
            var inX =
                Vector256.GreaterThanOrEqual(Vector256.LoadUnsafe(ref _maxX[0], at), minX)
                & Vector256.LessThanOrEqual(Vector256.LoadUnsafe(ref _minX[0], at), maxX);
            var inY =
                Vector256.GreaterThanOrEqual(Vector256.LoadUnsafe(ref _maxY[0], at), minY)
                & Vector256.LessThanOrEqual(Vector256.LoadUnsafe(ref _minY[0], at), maxY);
            near |= (inX & inY).ExtractMostSignificantBits() << k;
        }
        return near;
    }

    /// <summary>A slot without a ball on the table: nothing happens to it, and nothing meets it.</summary>
    private void KeepOut(int i)
    {
        _ownTime[i] = _pairTime[i] = double.PositiveInfinity;
        _minX[i] = _minY[i] = double.PositiveInfinity;
        _maxX[i] = _maxY[i] = double.NegativeInfinity;
    }

    private void PredictOwn(int i)
    {
        if (_pocket[i] >= 0)
        {
            KeepOut(i);
            return;
        }
        ref var ball = ref _balls[i];
        if (ball.Phase == Phase.Over)
        {
            PredictOver(i);
            return;
        }
        if (ball.Phase == Phase.AtRest)
        {
            _ownTime[i] = double.PositiveInfinity;
            _minX[i] = _maxX[i] = ball.X;
            _minY[i] = _maxY[i] = ball.Y;
            return;
        }
        var end = ball.End - ball.Since;
        var (kind, index) = (ToPhaseEnd, 0);
        Bound(i, ball, end);
        if (!InsideNoses(i))
        {
            var (x, y, vx, vy, ax, ay) = (ball.X, ball.Y, ball.Motion.Vx, ball.Motion.Vy, ball.Ax, ball.Ay);
            if (_minX[i] < BallRadius)
                TryNose(ball, 0, x - BallRadius, vx, ax, ref end, ref kind, ref index);
            if (_maxX[i] > Length - BallRadius)
                TryNose(ball, 1, Length - BallRadius - x, -vx, -ax, ref end, ref kind, ref index);
            if (_minY[i] < BallRadius)
                TryNose(ball, 2, y - BallRadius, vy, ay, ref end, ref kind, ref index);
            if (_maxY[i] > Width - BallRadius)
                TryNose(ball, 3, Width - BallRadius - y, -vy, -ay, ref end, ref kind, ref index);
            if (kind == ToNose)
                Bound(i, ball, end);
            for (var p = 0; p < _pockets.Length; p++)
            {
                ref readonly var mouth = ref _pockets[p];
                var box = mouth.Mouth;
                if (_maxX[i] < box.MinX || _minX[i] > box.MaxX || _maxY[i] < box.MinY || _minY[i] > box.MaxY)
                    continue;
                TryCircle(ball, mouth.JawA, BallRadius, ToJaw, 2 * p, ref end, ref kind, ref index);
                TryCircle(ball, mouth.JawB, BallRadius, ToJaw, 2 * p + 1, ref end, ref kind, ref index);
                TryCircle(ball, mouth.Drop, 0, ToDrop, p, ref end, ref kind, ref index);
            }
            if (kind > ToNose)
                Bound(i, ball, end);
        }
        _ownTime[i] = ball.Since + end;
        _ownKind[i] = kind;
        _ownIndex[i] = index;
    }

    /// <summary>Of a ball that is over all: it comes down again, or is beyond a nose line before.</summary>
    private void PredictOver(int i)
    {
        ref readonly var ball = ref _balls[i];
        var end = ball.End - ball.Since;
        Bound(i, ball, end);
        _ownKind[i] = ToPhaseEnd;
        if (_minX[i] < 0 || _maxX[i] > Length || _minY[i] < 0 || _maxY[i] > Width)
        {
            var x = Leaves(ball.X, ball.Motion.Vx, Length);
            var y = Leaves(ball.Y, ball.Motion.Vy, Width);
            if (Math.Min(x, y) < end)
                (end, _ownKind[i]) = (Math.Min(x, y), ToOff);
            Bound(i, ball, end);
        }
        _ownTime[i] = ball.Since + end;

        static double Leaves(double p, double v, double far) =>
            p < 0 || p > far ? 0
            : v > 0 ? (far - p) / v
            : v < 0 ? -p / v
            : double.PositiveInfinity;
    }

    /// <summary>The box that the ball's centre stays in for this long.</summary>
    private void Bound(int i, in MovingBall ball, double end)
    {
        (_minX[i], _maxX[i]) = Range(ball.X, ball.Motion.Vx, ball.Ax, end);
        (_minY[i], _maxY[i]) = Range(ball.Y, ball.Motion.Vy, ball.Ay, end);
    }

    private static (double Min, double Max) Range(double p, double v, double a, double end)
    {
        var last = p + end * (v + 0.5 * a * end);
        var (min, max) = (double.MinNative(p, last), double.MaxNative(p, last));
        if (v * a < 0 && Math.Abs(v) < Math.Abs(a) * end)
        {
            var turn = p - 0.5 * v * v / a;
            (min, max) = (double.MinNative(min, turn), double.MaxNative(max, turn));
        }
        return (min, max);
    }

    private bool InsideNoses(int i) =>
        _minX[i] > BallRadius && _maxX[i] < Length - BallRadius && _minY[i] > BallRadius && _maxY[i] < Width - BallRadius;

    private void TryNose(in MovingBall ball, int side, double gap, double v, double a, ref double end, ref byte kind, ref int index)
    {
        double t;
        const double deep = -1e-5;
        if (gap < deep && !_noses.Has(side, ball.X, ball.Y))
        {
            // In a pocket's mouth: the jaws see to it, unless the ball comes out and back to the nose beyond.
            if (!(v > 0 && a < 0))
                return;
            t = FirstCrossing.OfQuadratic(gap, v, 0.5 * a, end);
        }
        else if (gap >= Touching)
            t = FirstCrossing.OfQuadratic(gap, v, 0.5 * a, end);
        // One that has come down on the nose is kept off it as soon as it lies on the bed, wherever it is going.
        else if (-v > _slowApproach || (gap < deep && !ball.IsInAir))
            t = 0;
        else
            t = FirstCrossing.OfQuadratic(Math.Max(gap + _giveWay, _giveWay / 2), v, 0.5 * a, end);
        if (!(t < end))
            return;
        if (!_noses.Has(side, ball.X + t * (ball.Motion.Vx + 0.5 * ball.Ax * t), ball.Y + t * (ball.Motion.Vy + 0.5 * ball.Ay * t)))
            return;
        (end, kind, index) = (t, ToNose, side);
    }

    /// <summary>Whether the nose of a side is there, and not a pocket's mouth.</summary>
    private void TryCircle(
        in MovingBall ball,
        in Circle circle,
        double margin,
        byte toKind,
        int toIndex,
        ref double end,
        ref byte kind,
        ref int index
    )
    {
        var touch = toKind == ToDrop ? 0 : Touching;
        var t = Closing(
            ball.X - circle.X,
            ball.Y - circle.Y,
            ball.Motion.Vx,
            ball.Motion.Vy,
            ball.Ax,
            ball.Ay,
            circle.Radius + margin,
            touch,
            end
        );
        if (t < end)
            (end, kind, index) = (t, toKind, toIndex);
    }

    /// <summary>When a ball meets each of those near it.</summary>
    private void PredictPairs(int i, uint near, double now)
    {
        ref var a = ref _balls[i];
        now = double.MaxNative(now, a.Since);
        a.At(now, out var x, out var y, out var vx, out var vy);
        var (ax, ay, rests) = (a.Ax, a.Ay, a.Phase == Phase.AtRest);
        var (own, next) = (_ownTime[i], _pairTime[i]);
        for (; near != 0; near &= near - 1)
        {
            var j = BitOperations.TrailingZeroCount(near);
            ref var b = ref _balls[j];
            ref var nextOfJ = ref _pairTime[j];
            double t;
            // One that has come out of a cluster is already a little later than the rest.
            if (b.Since > now || a.IsInAir || b.IsInAir)
                t = MeetsInSpace(i, j, double.MaxNative(now, b.Since), double.MinNative(own, _ownTime[j]));
            else
            {
                b.At(now, out var xj, out var yj, out var vxj, out var vyj);
                var (px, py) = (x - xj, y - yj);
                Touch(i, j, IsTouch(px * px + py * py));
                if (rests && b.Phase == Phase.AtRest)
                    continue;
                // Later than this, one of the two will have been predicted anew.
                var until = double.MinNative(double.MinNative(own, _ownTime[j]), double.MaxNative(next, nextOfJ));
                t = now + Closing(px, py, vx - vxj, vy - vyj, ax - b.Ax, ay - b.Ay, 2 * BallRadius, Touching, until - now);
            }
            if (t < nextOfJ)
                (nextOfJ, _partner[j]) = (t, (byte)i);
            if (t < next)
                (next, _partner[i]) = (t, (byte)j);
        }
        _pairTime[i] = next;
    }

    /// <summary>When two balls meet from a time on, heights and all; +∞ if not before another.</summary>
    private double MeetsInSpace(int i, int j, double from, double until)
    {
        ref readonly var a = ref _balls[i];
        ref readonly var b = ref _balls[j];
        a.At(from, out var x, out var y, out var vx, out var vy);
        b.At(from, out var xj, out var yj, out var vxj, out var vyj);
        a.HeightAt(from, _cloth.Gravity, out var z, out var vz);
        b.HeightAt(from, _cloth.Gravity, out var zj, out var vzj);
        (x, y, z, vx, vy, vz) = (x - xj, y - yj, z - zj, vx - vxj, vy - vyj, vz - vzj);
        var (ax, ay) = (a.Ax - b.Ax, a.Ay - b.Ay);
        var az = (b.IsInAir ? _cloth.Gravity : 0) - (a.IsInAir ? _cloth.Gravity : 0);
        const double reach = 2 * BallRadius;
        var c0 = x * x + y * y + z * z - reach * reach;
        var pv = x * vx + y * vy + z * vz;
        Touch(i, j, c0 < 2 * reach * Touching);
        if (c0 < 2 * reach * Touching)
        {
            if (-pv > _slowApproach * reach)
                return from;
            c0 = Math.Max(c0 + 2 * reach * _giveWay, reach * _giveWay);
        }
        return from
            + FirstCrossing.Of(
                c0,
                2 * pv,
                vx * vx + vy * vy + vz * vz + x * ax + y * ay + z * az,
                vx * ax + vy * ay + vz * az,
                0.25 * (ax * ax + ay * ay + az * az),
                until - from
            );
    }

    private void Touch(int i, int j, bool touch)
    {
        if ((_touching[i] >> j & 1) != 0 == touch)
            return;
        _touching[i] ^= 1u << j;
        _touching[j] ^= 1u << i;
    }

    /// <summary>Whether two balls touch whose centres are so far apart, squared; m².</summary>
    private static bool IsTouch(double square) => square - 4 * BallRadius * BallRadius < 4 * BallRadius * Touching;

    /// <summary>When a point at p + v·t + a·t²/2 first comes within reach of the origin, on [0, end]; +∞ if it does not.</summary>
    private double Closing(double px, double py, double vx, double vy, double ax, double ay, double reach, double touch, double end)
    {
        var c0 = px * px + py * py - reach * reach;
        var pv = px * vx + py * vy;
        if (c0 < 2 * reach * touch)
        {
            if (touch == 0 || -pv > _slowApproach * reach)
                return 0;
            c0 = Math.Max(c0 + 2 * reach * _giveWay, reach * _giveWay);
        }
        return FirstCrossing.Of(c0, 2 * pv, vx * vx + vy * vy + px * ax + py * ay, vx * ax + vy * ay, 0.25 * (ax * ax + ay * ay), end);
    }
}
