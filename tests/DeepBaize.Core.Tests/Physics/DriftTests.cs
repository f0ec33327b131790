using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Table;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Tests.Physics;

/// <summary>Rolling balls on a table that is not level, against an independent program and a closed form.</summary>
public class DriftTests
{
    private static TableShape Leaning(double along, double across, double rolling = 0.0125) =>
        new(Conditions.Default with { DriftAlong = along, DriftAcross = across, RollingFriction = rolling });

    private static Vec2 End(TableShape shape, Vec2 from, Vec2 velocity)
    {
        var simulator = new Simulator(shape);
        simulator.Place([new(Ball.White, from.X, from.Y)]);
        simulator.Release([(0, new(velocity.X, velocity.Y, -velocity.Y / BallRadius, velocity.X / BallRadius, 0))]);
        return simulator.At(0);
    }

    /// <summary>
    /// To first order in the drift d, a ball that rolls s before it stops is moved aside by d·s/(2·μr·g): u′ = d − u/(T − t)
    /// has the solution u = d·(T − t)·ln(T/(T − t)). In words, by docs/model.md: a drift of 0.005 moves a slow ball by some 50 mm.
    /// </summary>
    [Theory]
    [InlineData(1.6)]
    [InlineData(2.5)]
    public void A_slow_ball_runs_off_as_far_as_the_closed_form_says(double way)
    {
        var (from, slowing) = (new Vec2(0.1, 0.9), 0.0125 * 9.81);
        var velocity = new Vec2(Math.Sqrt(2 * slowing * way), 0);
        var off = End(Leaning(0, 0.005), from, velocity).Y - from.Y;
        Assert.Equal(0.005 * way / (2 * slowing), off, 0.001);
        Assert.Equal(-off, End(Leaning(0, -0.005), from, velocity).Y - from.Y, 1e-9);
    }

    /// <summary>
    /// Sliding down an incline with friction, a textbook problem: with the angle φ to the drift d and the slowing m,
    /// v·sin φ·(tan(φ/2))^(−m/d) stays the same. From memory; it follows from dv/dφ = v·(m − d·cos φ)/(d·sin φ).
    /// </summary>
    [Theory]
    [InlineData(0.005, 1.0)]
    [InlineData(0.02, 0.4)]
    [InlineData(0.04, 2.0)]
    public void Speed_and_direction_keep_to_the_closed_form_of_an_incline(double drift, double speed)
    {
        var shape = Leaning(0, drift);
        var (simulator, record) = (new Simulator(shape), new ShotRecord());
        simulator.Place([new(Ball.White, 0.1, 0.1)]);
        simulator.Release([(0, new(speed, 0, 0, speed / BallRadius, 0))], record);
        var slowing = shape.Conditions.RollingFriction * shape.Conditions.Gravity;
        double Kept(Vec2 v) => Math.Log(v.Length * Math.Sin(Turn(v))) - slowing / drift * Math.Log(Math.Tan(Turn(v) / 2));
        static double Turn(Vec2 v) => Math.PI / 2 - v.Direction.Degrees * Math.PI / 180;
        var free = record.Pieces.TakeWhile(p => p.X < Length - 0.03 && p.Y < Width - 0.03).Select(p => new Vec2(p.Vx, p.Vy)).ToList();
        Assert.True(free.Count > 2);
        // Slow balls turn fast, so a small difference in the angle counts for much: the angle itself is compared, in milliradians.
        foreach (var v in free.Where(v => v.Length > 0.1))
            Assert.Equal(Kept(free[0]), Kept(v), 1e-3 * slowing / drift);
    }

    public static TheoryData<double, double, double> Tables =>
        new()
        {
            { 0.005, 0, 0.0125 },
            { -0.004, 0.012, 0.010 },
            { 0.02, -0.03, 0.016 },
            { 0, 0.05, 0.0125 },
        };

    [Theory]
    [MemberData(nameof(Tables))]
    public void Strokes_end_within_a_millimetre_of_the_fine_step_program(double along, double across, double rolling)
    {
        var shape = Leaning(along, across, rolling);
        foreach (var (aim, speed, side, height) in new[] { (97.0, 0.9, 0.0, 0.1), (3.0, 2.2, 0.2, 0.3), (-58.0, 1.6, 0.0, -0.3) })
        {
            var layout = Layout.Create([("white", 1.1, 0.9), ("red-1", 1.1, 1.3)], shape);
            var strike = Strike.Create(aim, speed, side, height, 3);
            var simulator = new Simulator(shape);
            simulator.Place(layout.AsSpan());
            simulator.Play(strike);
            var bodies = new FineStep(shape).Play(layout, strike);
            for (var i = 0; i < 2; i++)
            {
                Assert.Equal(bodies[i].Pocket, simulator.PocketOf(i));
                if (bodies[i].Pocket is null)
                    Assert.InRange(simulator.At(i).DistanceTo(new(bodies[i].X, bodies[i].Y)), 0, 1e-3);
            }
        }
    }

    [Fact]
    public void A_table_in_the_mirror_with_its_drift_in_the_mirror_gives_mirror_answers()
    {
        static Vec2 Mirrored(Vec2 v) => new(v.X, Width - v.Y);
        var (from, velocity) = (new Vec2(0.6, 0.5), new Vec2(1.3, 0.8));
        var one = End(Leaning(0.004, 0.01), from, velocity);
        var other = End(Leaning(0.004, -0.01), Mirrored(from), new(velocity.X, -velocity.Y));
        Assert.InRange(one.DistanceTo(Mirrored(other)), 0, 1e-9);
    }

    [Theory]
    [InlineData(0.06, 0, "conditions.driftAlong")]
    [InlineData(0, double.NaN, "conditions.driftAcross")]
    public void A_drift_out_of_range_is_refused_by_name(double along, double across, string field)
    {
        var refused = Assert.Throws<InputException>(() =>
            Conditions.With(new Dictionary<string, double> { ["driftAlong"] = along, ["driftAcross"] = across })
        );
        Assert.Equal(field, Assert.Single(refused.Errors).Field);
    }

    [Fact]
    public void A_slope_on_which_a_ball_would_roll_off_by_itself_is_refused() =>
        Assert.Throws<InputException>(() =>
            Conditions.With(
                new Dictionary<string, double>
                {
                    ["driftAlong"] = 0.03,
                    ["driftAcross"] = 0.03,
                    ["rollingFriction"] = 0.004,
                }
            )
        );
}
