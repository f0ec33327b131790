using DeepBaize.Core.Geometry;
using DeepBaize.Core.Learning;
using DeepBaize.Core.StandIns;

namespace DeepBaize.Core.Tests.Learning;

/// <summary>The timing of the cue, against motions in closed form.</summary>
public class StrokeTimingTests
{
    private const double Noise = MadeUpCue.TravelNoise,
        Loss = 0.35;

    /// <summary>Readings of a motion that loses a third of its speed at the contact and then slows evenly.</summary>
    private static CueMotion Readings(Func<double, double> travel, double contact, double speed, double rate = 500, double noise = Noise)
    {
        var random = new Random(1);
        var after = (1 - Loss) * speed;
        double At(double t)
        {
            if (t < 0)
                return travel(0);
            if (t < contact)
                return travel(t);
            var gone = Math.Min(t - contact, 0.25);
            return travel(contact) + after * (gone - gone * gone / 0.5);
        }
        var samples = new List<CueSample>();
        for (var i = 0; i < (contact + 0.7) * rate; i++)
        {
            var t = i / rate + 0.00037;
            samples.Add(new(t, At(t - 0.3) + noise * Normal.Pair(random).Item1));
        }
        // Times are told from the first reading on.
        return CueMotion.Create(CueMeasure.Travel, samples);
    }

    private const double Begins = 0.3 - 0.00037;

    /// <summary>A pendulum from its farthest point: its speed is greatest after a quarter of its period.</summary>
    [Theory]
    [InlineData(0.012)]
    [InlineData(0.030)]
    [InlineData(-0.010)]
    [InlineData(-0.025)]
    public void A_pendulum_is_past_its_peak_by_as_long_as_it_is(double past)
    {
        const double quarter = 0.18,
            reach = 0.25;
        var w = Math.PI / 2 / quarter;
        var contact = quarter + past;
        var speed = reach * w * Math.Sin(w * contact);
        var timing = StrokeTiming.Of(Readings(t => -reach * Math.Cos(w * t), contact, speed));
        Assert.Equal(Begins + contact, timing.Contact!.Value.Value, 0.001);
        Assert.InRange(timing.Speed.Value / speed, 0.98, 1.02);
        Assert.InRange(timing.Loss!.Value, 0.98 * Loss, 1.02 * Loss);
        Assert.Equal(past > 0 ? SpeedAtContact.PastPeak : SpeedAtContact.Rising, timing.AtContact);
        if (past > 0)
            Assert.Equal(past, timing.PeakBefore!.Value.Value, 0.001);
        else
            Assert.InRange(timing.PeakBefore!.Value.Value, past - 0.004, past + 0.004);
    }

    [Fact]
    public void A_ramp_still_rises_and_its_acceleration_is_told()
    {
        const double acceleration = 9,
            contact = 0.25;
        var timing = StrokeTiming.Of(Readings(t => acceleration * t * t / 2, contact, acceleration * contact));
        Assert.Equal(Begins + contact, timing.Contact!.Value.Value, 0.001);
        Assert.InRange(timing.Speed.Value / (acceleration * contact), 0.98, 1.02);
        Assert.Equal(SpeedAtContact.Rising, timing.AtContact);
        // It never would have had a peak.
        Assert.Null(timing.PeakBefore);
        var middle = timing.Curve.MinBy(p => Math.Abs(p.Time - Begins - 0.15));
        Assert.InRange(middle.Speed / (acceleration * (middle.Time - Begins)), 0.98, 1.02);
        var mean = timing.Curve.Where(p => Math.Abs(p.Time - Begins - 0.15) < 0.06).Average(p => p.Acceleration);
        Assert.InRange(mean / acceleration, 0.98, 1.02);
        Assert.Equal(contact, timing.Delivery!.Value.Seconds, 0.012);
    }

    /// <summary>A spring that is let go: the curve has no lag, though its window is 24 ms long.</summary>
    [Fact]
    public void The_filter_has_no_lag()
    {
        const double w = 9;
        var timing = StrokeTiming.Of(Readings(t => 0.2 * (1 - Math.Cos(w * t)), 0.165, 0.2 * w * Math.Sin(w * 0.165)));
        var inside = timing.Curve.Where(p => p.Time > Begins + 0.03 && p.Time < Begins + 0.15).ToList();
        // The lag that fits the curve best, by least squares: what is off over how steep it is.
        var lag =
            inside.Sum(p => (0.2 * w * Math.Sin(w * (p.Time - Begins)) - p.Speed) * 0.2 * w * w * Math.Cos(w * (p.Time - Begins)))
            / inside.Sum(p => Math.Pow(0.2 * w * w * Math.Cos(w * (p.Time - Begins)), 2));
        Assert.Equal(0, lag, 0.0005);
        Assert.Equal(0.024, timing.FilterWindow, 6);
    }

    [Fact]
    public void Without_a_ball_no_contact_is_told()
    {
        var random = new Random(2);
        var samples = Enumerable
            .Range(0, 500)
            .Select(i => new CueSample(i / 500.0, -0.2 * Math.Cos(2 * Math.PI * i / 500.0) + Noise * Normal.Pair(random).Item1));
        var timing = StrokeTiming.Of(CueMotion.Create(CueMeasure.Travel, [.. samples]));
        Assert.Null(timing.Contact);
        Assert.Equal(SpeedAtContact.Unknown, timing.AtContact);
        Assert.InRange(timing.Speed.Value / (0.2 * 2 * Math.PI), 0.98, 1.02);
    }

    /// <summary>With ten readings a film knows less, and says so.</summary>
    [Fact]
    public void Noise_widens_the_doubt_and_then_nothing_is_told()
    {
        const double quarter = 0.18;
        var w = Math.PI / 2 / quarter;
        var contact = quarter + 0.004;
        StrokeTiming Timed(double noise) =>
            StrokeTiming.Of(Readings(t => -0.25 * Math.Cos(w * t), contact, 0.25 * w * Math.Sin(w * contact), noise: noise));
        var (clear, noisy) = (Timed(0.00001), Timed(0.002));
        Assert.True(noisy.Noise > 20 * clear.Noise);
        Assert.True(clear.PeakBefore!.Value.Doubt < 0.003, $"{clear.PeakBefore}");
        Assert.True(noisy.AtContact is SpeedAtContact.Unknown or SpeedAtContact.AtPeak, $"{noisy.AtContact}");
    }

    [Theory]
    [InlineData(CueMeasure.Travel)]
    [InlineData(CueMeasure.Acceleration)]
    public void The_stand_ins_strokes_are_read_back(CueMeasure measure)
    {
        foreach (var past in new[] { -0.02, 0.012, 0.02 })
        {
            var script = new CueScript(PeakBefore: past);
            var timing = StrokeTiming.Of(MadeUpCue.Read(script, measure, new Random(3)));
            var (_, contact, _) = MadeUpCue.Motion(script);
            Assert.Equal(contact, timing.Contact!.Value.Value, 0.001);
            Assert.InRange(timing.Speed.Value / script.Speed, 0.98, 1.02);
            Assert.Equal(past > 0 ? SpeedAtContact.PastPeak : SpeedAtContact.Rising, timing.AtContact);
            if (past > 0)
                Assert.Equal(past, timing.PeakBefore!.Value.Value, 0.0015);
            Assert.InRange(timing.Backswing!.Value.Length / script.Backswing, 0.97, 1.03);
            Assert.Equal(script.Pause, timing.Pause!.Value.Seconds, 0.12);
            Assert.Equal(0, timing.Dips);
            Assert.True(timing.FollowThrough!.Value.Length > 0.1);
        }
    }

    [Fact]
    public void An_uneven_delivery_is_told_from_a_smooth_one()
    {
        StrokeTiming Timed(double jerk) => StrokeTiming.Of(MadeUpCue.Read(new(Jerk: jerk), CueMeasure.Travel, new Random(4)));
        var (even, uneven) = (Timed(0), Timed(1));
        Assert.Equal(0, even.Dips);
        Assert.True(uneven.Dips >= 1, $"{uneven.Dips}");
        Assert.True(even.Smoothness > uneven.Smoothness + 1, $"{even.Smoothness} {uneven.Smoothness}");
    }

    [Fact]
    public void Bad_readings_are_named_by_their_place()
    {
        List<CueSample> samples = [.. Enumerable.Range(0, 20).Select(i => new CueSample(i * 0.002, 0.001 * i))];
        samples[7] = new(0.002, 0.001);
        samples[9] = new(0.018, double.NaN);
        var e = Assert.Throws<InputException>(() => CueMotion.Create(CueMeasure.Travel, samples));
        Assert.Equal(["samples[7].time", "samples[9].value"], e.Errors.Select(x => x.Field));
        Assert.Throws<InputException>(() => CueMotion.Create(CueMeasure.Travel, samples[..5]));
    }

    /// <summary>Ten taps on a film of 240 pictures a second, each by a fifth of a millimetre off: the bar is 5 ms.</summary>
    [Theory]
    [InlineData(0.035)]
    [InlineData(-0.030)]
    public void Ten_taps_on_a_film_are_enough(double past)
    {
        const double quarter = 0.18,
            reach = 0.25,
            tapped = 0.0002;
        var w = Math.PI / 2 / quarter;
        var contact = quarter + past;
        var speed = reach * w * Math.Sin(w * contact);
        var random = new Random(6);
        double At(double t) =>
            t < 0 ? -reach
            : t < contact ? -reach * Math.Cos(w * t)
            : -reach * Math.Cos(w * contact) + 0.65 * speed * (t - contact);
        // Every sixth picture, and the last ones before the contact, which is seen to the picture.
        var last = Math.Floor(contact * 240);
        int[] taps = [-38, -32, -26, -20, -14, -10, -6, -3, -1, 0, 3];
        var samples = taps.Select(k => (last + k) / 240).Select(t => new CueSample(t, At(t) + tapped * Normal.Pair(random).Item1));
        var seen = (Math.Floor(contact * 240) + 0.5) / 240;
        var timing = StrokeTiming.Of(CueMotion.Create(CueMeasure.Travel, [.. samples], seen));
        Assert.Equal(contact - samples.First().Time, timing.Contact!.Value.Value, 0.005);
        Assert.InRange(timing.Speed.Value / speed, 0.92, 1.08);
        if (past > 0)
        {
            Assert.Equal(SpeedAtContact.PastPeak, timing.AtContact);
            Assert.Equal(past, timing.PeakBefore!.Value.Value, 0.005);
        }
        else
            Assert.Equal(SpeedAtContact.Rising, timing.AtContact);
    }

    [Fact]
    public void What_scatters_is_told_from_what_is_alike()
    {
        double[] pauses = [0.1, 0.35, 0.2, 0.5];
        var strokes = pauses.Select((p, i) => StrokeTiming.Of(MadeUpCue.Read(new(Pause: p), CueMeasure.Travel, new Random(i)))).ToList();
        var figures = TimingComparison.Of(strokes);
        Assert.Equal(["pause"], figures.Where(f => f.Scatters).Select(f => f.Name));
        Assert.Equal(2.5, figures.Single(f => f.Name == "contactSpeed").Mean, 0.05);
    }
}
