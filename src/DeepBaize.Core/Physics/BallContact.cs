using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Physics;

/// <summary>Ball on ball: restitution along the line of centres, friction across it (throw). docs/model.md, "Contact".</summary>
public static class BallContact
{
    /// <summary>Both balls' motion after contact; n is the unit vector from a's centre to b's.</summary>
    /// <returns>Unchanged if they are not approaching.</returns>
    public static (BallMotion A, BallMotion B) Collide(in BallMotion a, in BallMotion b, double nx, double ny, Conditions c)
    {
        var (rvx, rvy) = (a.Vx - b.Vx, a.Vy - b.Vy);
        var approach = rvx * nx + rvy * ny;
        if (approach <= 0)
            return (a, b);
        var normal = (1 + c.BallRestitution) * approach / 2;

        // Slip at the contact, along t = ẑ × n and along ẑ.
        var (wx, wy, wz) = (a.Wx + b.Wx, a.Wy + b.Wy, a.Wz + b.Wz);
        var slipT = rvy * nx - rvx * ny + BallRadius * wz;
        var slipZ = BallRadius * (wx * ny - wy * nx);
        var slip = Math.Sqrt(slipT * slipT + slipZ * slipZ);
        double pt = 0,
            pz = 0;
        if (slip > 0)
        {
            var friction = Math.Min(c.BallFriction(slip) * normal, slip / 7);
            (pt, pz) = (friction * slipT / slip, friction * slipZ / slip);
        }

        // The impulse on b is normal·n + pt·t; on a its opposite. The vertical part turns the balls but does not lift them.
        var (ix, iy) = (normal * nx - pt * ny, normal * ny + pt * nx);
        const double k = 5 / (2 * BallRadius);
        var (sx, sy, sz) = (-k * pz * ny, k * pz * nx, -k * pt);
        return (new(a.Vx - ix, a.Vy - iy, a.Wx + sx, a.Wy + sy, a.Wz + sz), new(b.Vx + ix, b.Vy + iy, b.Wx + sx, b.Wy + sy, b.Wz + sz));
    }

    /// <summary>Collides two balls of which one is off the bed: n has a vertical part, and vertical velocities are kept.</summary>
    public static (BallMotion A, BallMotion B) Collide(in BallMotion a, in BallMotion b, double nx, double ny, double nz, Conditions c)
    {
        var (rx, ry, rz) = (a.Vx - b.Vx, a.Vy - b.Vy, a.Vz - b.Vz);
        var approach = rx * nx + ry * ny + rz * nz;
        if (approach <= 0)
            return (a, b);
        var normal = (1 + c.BallRestitution) * approach / 2;
        var (cx, cy, cz) = Slip(a, b, nx, ny, nz, approach);
        var slip = Math.Sqrt(cx * cx + cy * cy + cz * cz);
        var friction = slip > 0 ? Math.Min(c.BallFriction(slip) * normal, slip / 7) / slip : 0;
        // What b gets; a gets its opposite.
        var (fx, fy, fz) = (friction * cx, friction * cy, friction * cz);
        var (ix, iy, iz) = (normal * nx + fx, normal * ny + fy, normal * nz + fz);
        const double k = 5 / (2 * BallRadius);
        var (sx, sy, sz) = (-k * (ny * fz - nz * fy), -k * (nz * fx - nx * fz), -k * (nx * fy - ny * fx));
        return (
            new(a.Vx - ix, a.Vy - iy, a.Wx + sx, a.Wy + sy, a.Wz + sz, a.Vz - iz),
            new(b.Vx + ix, b.Vy + iy, b.Wx + sx, b.Wy + sy, b.Wz + sz, b.Vz + iz)
        );
    }

    /// <summary>The slip at the contact, m/s: (va − vb) + R·(ωa + ωb) × n, less its part along n.</summary>
    private static (double X, double Y, double Z) Slip(in BallMotion a, in BallMotion b, double nx, double ny, double nz, double approach)
    {
        var (wx, wy, wz) = (BallRadius * (a.Wx + b.Wx), BallRadius * (a.Wy + b.Wy), BallRadius * (a.Wz + b.Wz));
        return (
            a.Vx - b.Vx + (wy * nz - wz * ny) - approach * nx,
            a.Vy - b.Vy + (wz * nx - wx * nz) - approach * ny,
            a.Vz - b.Vz + (wx * ny - wy * nx) - approach * nz
        );
    }
}
