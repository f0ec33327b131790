using System.Runtime.CompilerServices;
using System.Runtime.Intrinsics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Physics;

/// <summary>
/// Ball on cushion after Mathavan, Jackson &amp; Parkin 2010: friction at the nose and at the cloth, integrated over the normal impulse.
/// </summary>
/// <remarks>
/// <para>In the frame of the contact (k into the cushion, t = ẑ × k along it, e = −s·k + √(1−s²)·ẑ up the nose) and
/// scaled by the
/// speed of approach, the independent variable is q = −v_k, which rises from −1 to 0 in compression and on in restitution: so the
/// end of compression is a given, not a root. The equations need three numbers, the slip along the cushion at the cloth (A)
/// and at the nose (B) and Rω_t (T); the rest follows from them. The fourth component carried is the work done.</para>
/// <para>Dormand–Prince 5(4) with step control. Friction changes direction abruptly where a slip dies, so steps land on that
/// point and go on from there either sticking, if friction can hold, or slipping the way the ball is driven (Filippov's
/// solution, which small explicit steps converge to).</para>
/// <para>A ball that rolls has A = 0 and T = 1, whatever its direction, speed and side: what becomes of it depends on B alone. So that
/// case, which is most of all rebounds, is looked up in a table over B (<see cref="RollingRebounds"/>).</para>
/// </remarks>
public sealed class CushionContact
{
    // Against a million small steps the result stays within 1e-4 of the speed, most of the time within 1e-5 (docs/model.md).
    private const double Tolerance = 2e-6,
        FineTolerance = 1e-8;
    private const double NoSlip = 1e-5;

    /// <summary>So near to rolling the table is for it: what rounding leaves.</summary>
    private const double Rolling = 1e-9;

    /// <summary>The last of the restitution, in q, is one step of second order.</summary>
    private const double NearEnd = 5e-3;

    /// <summary>In q: what happens on the way does not matter.</summary>
    private const double ShortEnough = 30 * NoSlip;

    private const int MaxSteps = 4000;

    private readonly double _muNose,
        _muCloth,
        _returned;

    /// <summary>Sine and cosine of the angle at which the nose meets the ball, above its equator.</summary>
    private double _s,
        _c;

    /// <summary>1 − 5s/2: how much of the friction along the cushion at one contact is felt as slip at the other.</summary>
    private double _cross;

    private readonly RollingRebounds? _rolling;

    /// <summary>Returns the rebound of a ball that is off the bed: the nose meets it lower down.</summary>
    private readonly CushionContact? _raised;

    /// <summary>Creates the rebound for a table's conditions; its lookup tables are cached.</summary>
    public CushionContact(Conditions c)
        : this(c, c.NoseSine)
    {
        // The table outlives this instance and serves other threads: it has one of its own to integrate with.
        _rolling = RollingRebounds.Of(c, () =>
        {
            var level = new CushionContact(c, c.NoseSine);
            return slip => level.Slipping(Vector256.Create(0, slip, 1, 0), FineTolerance);
        });
        _raised = new(c, c.NoseSine);
    }

    private CushionContact(Conditions c, double sine)
    {
        _muNose = c.CushionFriction;
        _muCloth = c.SlidingFriction;
        _returned = c.CushionRestitution * c.CushionRestitution;
        SetNose(sine);
    }

    private void SetNose(double sine) => (_s, _c, _cross) = (sine, Math.Sqrt(1 - sine * sine), 1 - 2.5 * sine);

    /// <summary>Of a ball whose centre is so high above its place at rest, m.</summary>
    /// <inheritdoc cref="Rebound(in BallMotion, double, double)"/>
    public BallMotion Rebound(in BallMotion m, double kx, double ky, double height)
    {
        if (height <= 0)
            return Rebound(m, kx, ky);
        _raised!.SetNose(Math.Max(0, _s - height / BallRadius));
        return _raised.Rebound(m, kx, ky) with { Vz = m.Vz };
    }

    /// <summary>The motion after contact; k is the unit vector from the ball into the cushion.</summary>
    /// <returns>Unchanged if the ball is not approaching.</returns>
    public BallMotion Rebound(in BallMotion m, double kx, double ky)
    {
        var speed = m.Vx * kx + m.Vy * ky;
        if (speed <= 0)
            return m;
        var spin = BallRadius / speed;
        var vt = (m.Vy * kx - m.Vx * ky) / speed;
        var (wk, wt, wz) = ((m.Wx * kx + m.Wy * ky) * spin, (m.Wy * kx - m.Wx * ky) * spin, m.Wz * spin);

        var (slipCloth, slipNose) = (vt + wk, vt + _c * wz - _s * wk);
        var rolls = Math.Abs(slipCloth) < Rolling && Math.Abs(wt - 1) < Rolling;
        var (q, nose, cloth, turn) =
            rolls && _rolling is not null ? _rolling.At(slipNose) : Slipping(Vector256.Create(slipCloth, slipNose, wt, 0), Tolerance);
        vt = (vt - nose - cloth) * speed;
        wk = (wk + 2.5 * (_s * nose - cloth)) / spin;
        wt = turn / spin;
        wz = (wz - 2.5 * _c * nose) / spin;
        var vk = -q * speed;
        return new(vk * kx - vt * ky, vk * ky + vt * kx, wk * kx - wt * ky, wk * ky + wt * kx, wz);
    }

    /// <summary>What comes of a ball with these slips and spin (A, B, T, 0), in units of the speed of approach.</summary>
    private ReboundImpulses Slipping(Vector256<double> before, double tolerance)
    {
        var (q, after) = Integrate(before, tolerance);
        // The two friction impulses along the cushion, from the change of the two slips they made.
        var (dA, dB) = (after[0] - before[0], after[1] - before[1]);
        var det = 12.25 - _cross * _cross;
        return new(q, (_cross * dA - 3.5 * dB) / det, (_cross * dB - 3.5 * dA) / det, after[2]);
    }

    /// <summary>Carries the state through compression and restitution; returns the final q with it.</summary>
    private (double Q, Vector256<double> State) Integrate(Vector256<double> y, double tolerance)
    {
        double q = -1,
            h = 0.5,
            workEnd = 0;
        var (restoring, rejected) = (false, false);
        var k1 = Rate(q, y);
        for (var step = 0; step < MaxSteps; step++)
        {
            double left;
            if (restoring)
            {
                // dW/dq = −c·q/a with a nearly constant, so W falls as q²: solving that for the rest is a Newton step.
                var slope = q > 0 ? -k1[3] / q : -Rate(1e-6, y)[3] * 1e6;
                left = Math.Sqrt(Math.Max(0, q * q + 2 * (y[3] - workEnd) / slope)) - q;
                if (Math.Abs(left) < NearEnd)
                {
                    var slopeAtEnd = Rate(q + left, y + k1 * left);
                    y += (k1 + slopeAtEnd) * (0.5 * left);
                    var rest = (workEnd - y[3]) / slopeAtEnd[3];
                    return (q + left + rest, y + slopeAtEnd * rest);
                }
            }
            else
                left = -q;

            var (slipLeft, isLast, atNose) = left > 0 ? SlipLeft(q, y, k1) : (double.PositiveInfinity, false, false);
            if (isLast && slipLeft < left)
            {
                // The last bit of a dying slip, straight to its end: too short to matter how.
                y += k1 * slipLeft;
                q += slipLeft;
                y = atNose ? y.WithElement(1, 0).WithElement(2, _s * q) : y.WithElement(0, 0).WithElement(2, -q);
                k1 = Rate(q, y);
                continue;
            }
            var size = Math.Min(Math.Min(h, slipLeft), Math.Abs(left));
            var landing = size == Math.Abs(left);
            var signed = Math.CopySign(size, left);

            var k2 = Rate(q + signed * (1.0 / 5), y + k1 * (signed * (1.0 / 5)));
            var k3 = Rate(q + signed * (3.0 / 10), y + (k1 * (3.0 / 40) + k2 * (9.0 / 40)) * signed);
            var k4 = Rate(q + signed * (4.0 / 5), y + (k1 * (44.0 / 45) - k2 * (56.0 / 15) + k3 * (32.0 / 9)) * signed);
            var k5 = Rate(
                q + signed * (8.0 / 9),
                y + (k1 * (19372.0 / 6561) - k2 * (25360.0 / 2187) + k3 * (64448.0 / 6561) - k4 * (212.0 / 729)) * signed
            );
            var k6 = Rate(
                q + signed,
                y + (k1 * (9017.0 / 3168) - k2 * (355.0 / 33) + k3 * (46732.0 / 5247) + k4 * (49.0 / 176) - k5 * (5103.0 / 18656)) * signed
            );
            var next =
                y + (k1 * (35.0 / 384) + k3 * (500.0 / 1113) + k4 * (125.0 / 192) - k5 * (2187.0 / 6784) + k6 * (11.0 / 84)) * signed;
            var k7 = Rate(q + signed, next);
            var e = Vector256.Abs(
                (
                    k1 * (71.0 / 57600)
                    - k3 * (71.0 / 16695)
                    + k4 * (71.0 / 1920)
                    - k5 * (17253.0 / 339200)
                    + k6 * (22.0 / 525)
                    - k7 * (1.0 / 40)
                ) * size
            );
            var error = Math.Max(Math.Max(e[0], e[1]), e[2]);

            var stretch = error < tolerance * 1e-4 ? 4 : 0.85 * Math.Pow(tolerance / error, 0.2);
            if (error > tolerance && size > 1e-8)
            {
                h = size * Math.Max(0.1, stretch);
                rejected = true;
                continue;
            }
            // A step cut short says nothing against a longer one; one just refused says something.
            h = size < h ? Math.Max(h, size * stretch) : h * Math.Min(stretch, rejected ? 1 : 4);
            rejected = false;
            y = next;
            k1 = k7;
            q = landing && !restoring ? 0 : q + signed;
            if (landing && !restoring)
            {
                restoring = true;
                workEnd = y[3] * (1 - _returned);
            }
        }
        return (q, y);
    }

    /// <summary>
    /// How far q may go before a slip that is dying is nearly dead, so that no step reaches across its end; and whether it is so nearly
    /// dead that this is to its very end; and where it is.
    /// </summary>
    private (double Left, bool IsLast, bool AtNose) SlipLeft(double q, in Vector256<double> y, in Vector256<double> rate)
    {
        var (a, b, t) = (y[0], y[1], y[2]);
        var (e, k) = (_s * q - t, -q - t);
        var nose = Until(b * b + e * e, b * rate[1] + e * (_s - rate[2]));
        var cloth = Until(k * k + a * a, a * rate[0] - k * (1 + rate[2]));
        return nose.Left < cloth.Left ? (nose.Left, nose.IsLast, true) : (cloth.Left, cloth.IsLast, false);
    }

    /// <summary>For the square of a slip, and half the rate at which that square changes.</summary>
    private static (double Left, bool IsLast) Until(double square, double rate)
    {
        if (!(rate < 0 && square > NoSlip * NoSlip))
            return (double.PositiveInfinity, false);
        var left = -square / rate;
        if (square >= 16 * NoSlip * NoSlip)
            return (left * (1 - 2 * NoSlip / Math.Sqrt(square)), false);
        // A slip that is small but hardly shrinks is turning over: that is for the step control.
        return left < ShortEnough ? (left, true) : (double.PositiveInfinity, false);
    }

    /// <summary>d(A, B, T, W)/dq.</summary>
    [MethodImpl(MethodImplOptions.AggressiveInlining)]
    private Vector256<double> Rate(double q, Vector256<double> y)
    {
        // Slip at the nose along t (B) and e, at the cloth along k and t (A).
        var (a, b, t) = (y[0], y[1], y[2]);
        var (e, k) = (_s * q - t, -q - t);
        var nose2 = b * b + e * e;
        var cloth2 = k * k + a * a;

        // Friction per unit of normal impulse, at the nose (opposing B, e) and at the cloth (opposing k, A), times the product of the
        // two slips: so that one division does for all.
        double noseT,
            noseE,
            clothK,
            clothT,
            slips;
        if (nose2 > NoSlip * NoSlip && cloth2 > NoSlip * NoSlip)
        {
            var (noseSlip, clothSlip) = (Math.Sqrt(nose2), Math.Sqrt(cloth2));
            var f = _muNose * clothSlip;
            (noseT, noseE) = (f * b, f * e);
            var g = _muCloth * Math.Max(0, _s * noseSlip + _c * _muNose * e);
            (clothK, clothT) = (g * k, g * a);
            slips = noseSlip * clothSlip;
        }
        else
        {
            (noseT, noseE, clothK, clothT) = Held(b, e, nose2, k, a, cloth2);
            slips = 1;
        }

        var perQ = 1 / (_c * slips - _s * noseE + clothK);
        return Vector256.Create(
            (-_cross * noseT - 3.5 * clothT) * perQ,
            (-3.5 * noseT - _cross * clothT) * perQ,
            2.5 * (noseE + clothK) * perQ,
            -_c * q * slips * perQ
        );
    }

    /// <summary>
    /// Frictions where one slip or both are zero: what holds it there, or, if that is too much, full friction against the way it is driven.
    /// </summary>
    private (double NoseT, double NoseE, double ClothK, double ClothT) Held(
        double b,
        double e,
        double nose2,
        double k,
        double a,
        double cloth2
    )
    {
        var (noseHeld, clothHeld) = (nose2 <= NoSlip * NoSlip, cloth2 <= NoSlip * NoSlip);
        var (noseT, noseE, clothK, clothT) = (0.0, 0.0, 0.0, 0.0);
        if (!noseHeld)
        {
            var f = _muNose / Math.Sqrt(nose2);
            (noseT, noseE) = (f * b, f * e);
        }
        // Each contact's friction bears on the other's slip, and the nose's on the load at the cloth: go round until they agree.
        for (var round = 0; round < 40; round++)
        {
            var (oldT, oldE) = (noseT, noseE);
            if (noseHeld)
                (noseT, noseE) = Hold(-_cross * clothT, _s * _c + (_s - 2.5) * clothK, 3.5, _s * _s + 2.5, _muNose);
            var load = _muCloth * Math.Max(0, _s + _c * noseE);
            if (clothHeld)
                (clothK, clothT) = Hold(-_c - (2.5 - _s) * noseE, -_cross * noseT, 3.5, 3.5, load);
            else
            {
                var g = load / Math.Sqrt(cloth2);
                (clothK, clothT) = (g * k, g * a);
            }
            if (Math.Abs(noseT - oldT) + Math.Abs(noseE - oldE) < 1e-10)
                break;
        }
        return (noseT, noseE, clothK, clothT);
    }

    /// <summary>
    /// Friction (x, y) on a contact at rest whose slip would change at the rate (driveX, driveY) without it and by
    /// −(stiffX·x, stiffY·y) with it. If holding takes more than <paramref name="most"/>, the slip starts along the
    /// friction d·most for which drive − stiff·d·most = λ·d with λ &gt; 0.
    /// </summary>
    private static (double, double) Hold(double driveX, double driveY, double stiffX, double stiffY, double most)
    {
        var (x, y) = (driveX / stiffX, driveY / stiffY);
        if (x * x + y * y <= most * most || most == 0)
            return most == 0 ? (0, 0) : (x, y);
        // |drive/(stiff·most + λ)| = 1 falls with λ and is convex: Newton from the left never overshoots.
        var lambda = Math.Max(0, Math.Sqrt(driveX * driveX + driveY * driveY) - Math.Max(stiffX, stiffY) * most);
        for (var i = 0; i < 30; i++)
        {
            var (px, py) = (stiffX * most + lambda, stiffY * most + lambda);
            var (dx, dy) = (driveX / px, driveY / py);
            var value = dx * dx + dy * dy - 1;
            var change = value / (2 * (dx * dx / px + dy * dy / py));
            lambda += change;
            if (Math.Abs(change) < 1e-12)
                break;
        }
        return (most * driveX / (stiffX * most + lambda), most * driveY / (stiffY * most + lambda));
    }
}
