using CsCheck;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Physics;

public class BallContactTests
{
    private static readonly Conditions Ideal = Conditions.Default with
    {
        BallRestitution = 1,
        BallFrictionFloor = 0,
        BallFrictionRange = 0,
    };

    /// <summary>A cue ball running along +x meets a ball at rest at this cut: n points φ to the right of its way.</summary>
    private static (BallMotion Cue, BallMotion Object) Cut(double degrees, double speed, double topspin, double sidespin, Conditions c)
    {
        var phi = degrees * Math.PI / 180;
        return BallContact.Collide(new(speed, 0, 0, topspin * speed / BallRadius, sidespin), default, Math.Cos(phi), -Math.Sin(phi), c);
    }

    [Theory]
    [InlineData(10)]
    [InlineData(30)]
    [InlineData(60)]
    public void A_stunned_cue_ball_leaves_at_right_angles_to_the_pot(double phi)
    {
        // Momentum and energy of equal elastic balls: any textbook of mechanics.
        var (cue, obj) = Cut(phi, 2, 0, 0, Ideal);
        Assert.Equal(0, cue.Vx * obj.Vx + cue.Vy * obj.Vy, 1e-12);
        Assert.Equal(4, cue.Vx * cue.Vx + cue.Vy * cue.Vy + obj.Vx * obj.Vx + obj.Vy * obj.Vy, 1e-12);
    }

    [Fact]
    public void Every_cut_starts_along_the_stun_line_whatever_the_spin()
    {
        // Common practice, no source; exact without friction between the balls.
        var (stun, _) = Cut(35, 2, 0, 0, Ideal);
        foreach (var spin in (double[])[-2, -1, 1])
        {
            var (cue, _) = Cut(35, 2, spin, 0, Ideal);
            Assert.Equal(Math.Atan2(stun.Vy, stun.Vx), Math.Atan2(cue.Vy, cue.Vx), 1e-12);
        }
    }

    [Theory]
    [InlineData(15, 1)]
    [InlineData(30, 2)]
    [InlineData(60, 3)]
    public void Throw_follows_the_friction_law(double phi, double speed)
    {
        // Alciatore TP A.14 (from memory): tan(throw) is friction impulse over normal impulse.
        var c = Conditions.Default with { BallRestitution = 1 };
        var slip = speed * Math.Sin(phi * Math.PI / 180);
        var normal = speed * Math.Cos(phi * Math.PI / 180);
        var expected = Math.Atan(Math.Min(c.BallFriction(slip), slip / 7 / normal));
        var (_, obj) = Cut(phi, speed, 0, 0, c);
        // The line of centres points φ to the right; throw drags the object ball forward, to the left of it.
        Assert.Equal(expected, Math.Atan2(obj.Vy, obj.Vx) + phi * Math.PI / 180, 1e-9);
    }

    [Theory]
    [InlineData(20)]
    [InlineData(45)]
    public void Gearing_side_takes_the_throw_away(double phi)
    {
        // The contact points do not slip on each other: ωz·R equal and opposite to v·sin φ. Alciatore TP A.14, from memory.
        var side = -2 * Math.Sin(phi * Math.PI / 180) / BallRadius;
        var (_, obj) = Cut(phi, 2, 0, side, Conditions.Default);
        Assert.Equal(-phi * Math.PI / 180, Math.Atan2(obj.Vy, obj.Vx), 1e-12);
    }

    [Fact]
    public void Friction_law_is_the_published_fit() // Alciatore TP A.14, from memory
    {
        Assert.Equal(0.11795, Conditions.Default.BallFriction(0), 1e-12);
        Assert.Equal(0.00995 + 0.108 * Math.Exp(-1.088), Conditions.Default.BallFriction(1), 1e-12);
    }

    [Fact]
    public void Contact_keeps_momentum_and_never_gives_energy() =>
        Gen.Select(Gen.Double[0, 2 * Math.PI], Gen.Double[-5, 5].Array[4], Gen.Double[-200, 200].Array[6])
            .Sample(
                (turn, v, w) =>
                {
                    var a = new BallMotion(v[0], v[1], w[0], w[1], w[2]);
                    var b = new BallMotion(v[2], v[3], w[3], w[4], w[5]);
                    var (nx, ny) = (Math.Cos(turn), Math.Sin(turn));
                    var (c, d) = BallContact.Collide(a, b, nx, ny, Conditions.Default);
                    Assert.Equal(a.Vx + b.Vx, c.Vx + d.Vx, 1e-9);
                    Assert.Equal(a.Vy + b.Vy, c.Vy + d.Vy, 1e-9);
                    Assert.True(c.Energy + d.Energy <= (a.Energy + b.Energy) * (1 + 1e-12) + 1e-12);
                    Assert.True(
                        (c.Vx - d.Vx) * nx + (c.Vy - d.Vy) * ny <= 1e-9 + Math.Max(0, -((a.Vx - b.Vx) * nx + (a.Vy - b.Vy) * ny)) * 10
                    );
                },
                iter: Thoroughness.Cases(5000)
            );
}
