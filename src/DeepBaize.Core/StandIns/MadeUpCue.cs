using DeepBaize.Core.Learning;

namespace DeepBaize.Core.StandIns;

/// <summary>How a made-up stroke of the cue goes.</summary>
/// <param name="PeakBefore">How long before the contact its speed has its peak, s; negative: it would have had it so much later.</param>
/// <param name="Speed">At the contact, m/s.</param>
/// <param name="Backswing">Length, m.</param>
/// <param name="Pause">s.</param>
/// <param name="Jerk">How unevenly it comes, 0–1: the speed falls back on the way.</param>
public sealed record CueScript(
    double PeakBefore = -0.004,
    double Speed = 2.5,
    double Backswing = 0.26,
    double Pause = 0.25,
    double Jerk = 0
);

/// <summary>A sensor on a made-up player's cue, 500 readings a second.</summary>
public static class MadeUpCue
{
    /// <summary>Readings a second, and standard deviations of one.</summary>
    public const double Rate = 500,
        TravelNoise = 0.00004,
        AccelerationNoise = 0.25;

    private const double Address = 0.35,
        Back = 0.7,
        Stop = 0.28,
        Rests = 0.3,
        Loss = 0.37;

    /// <summary>The true motion: travel, m, speed and acceleration at a time, and when the tip meets the ball, s.</summary>
    public static (Func<double, (double Travel, double Speed)> At, double Contact, double Ends) Motion(CueScript script)
    {
        var (start, contact) = DeliveryOf(script);
        var begins = Address + Back + script.Pause;
        var met = begins + (contact - start);
        (double, double) At(double t)
        {
            if (t < Address)
                return (0, 0);
            if (t < Address + Back)
            {
                var share = (t - Address) / Back;
                return (-script.Backswing * MinimumJerk(share), -script.Backswing / Back * MinimumJerkSlope(share));
            }
            if (t < begins)
                return (-script.Backswing, 0);
            if (t < met)
                return Delivered(script, t - begins);
            // After the contact it slows evenly until it stands.
            var after = Math.Min(Stop, t - met);
            var speed = script.Speed * (1 - Loss);
            return (speed * (after - after * after / (2 * Stop)), speed * (1 - after / Stop));
        }
        return (At, met, met + Stop + Rests);
    }

    /// <summary>The readings of a sensor.</summary>
    public static CueMotion Read(CueScript script, CueMeasure measure, Random random)
    {
        var (at, contact, ends) = Motion(script);
        const double step = 1 / Rate,
            knock = 0.001;
        var samples = new List<CueSample>();
        for (var i = 0; i * step < ends; i++)
        {
            var t = i * step;
            var (noise, _) = Normal.Pair(random);
            // An accelerometer tells the mean over its step; the knock of the contact takes a millisecond.
            double Speed(double time) =>
                Math.Abs(time - contact) < knock / 2
                    ? at(contact - knock / 2).Speed
                        + (at(contact + knock / 2).Speed - at(contact - knock / 2).Speed) * ((time - contact) / knock + 0.5)
                    : at(time).Speed;
            var value =
                measure == CueMeasure.Travel
                    ? at(t).Travel + TravelNoise * noise
                    : (Speed(t + step / 2) - Speed(t - step / 2)) / step + AccelerationNoise * noise;
            samples.Add(new(t, value));
        }
        return CueMotion.Create(measure, samples);
    }

    private static double MinimumJerk(double s) => s * s * s * (10 - 15 * s + 6 * s * s);

    private static double MinimumJerkSlope(double s) => 30 * s * s * (1 - s) * (1 - s);

    /// <summary>The speed rises like sin² to its peak and falls like it: how long the delivery takes follows from its length.</summary>
    private static (double Start, double Contact) DeliveryOf(CueScript script)
    {
        // Beyond, the speed would be nought again before the contact.
        var (low, high) = (0.02 + 1.15 * Math.Abs(script.PeakBefore), 2.0);
        for (var i = 0; i < 60; i++)
        {
            var rise = (low + high) / 2;
            (low, high) = LengthOf(script, rise) < script.Backswing ? (rise, high) : (low, rise);
        }
        return (0, low + script.PeakBefore);
    }

    private static double LengthOf(CueScript script, double rise)
    {
        var end = rise + script.PeakBefore;
        if (end <= 0)
            return 0;
        var top = script.Speed / Shape(end, rise);
        return top * Area(end, rise);
    }

    private static double Shape(double t, double rise) => Math.Pow(Math.Sin(Math.PI * t / (2 * rise)), 2);

    private static double Area(double t, double rise) => t / 2 - rise / (2 * Math.PI) * Math.Sin(Math.PI * t / rise);

    private static (double Travel, double Speed) Delivered(CueScript script, double t)
    {
        var contact = DeliveryOf(script).Contact;
        var rise = contact - script.PeakBefore;
        var top = script.Speed / Shape(contact, rise);
        // An uneven one swings about this, and is where it should be at the contact.
        var beats = 3 * 2 * Math.PI / contact;
        var swing = script.Jerk * 0.25 * script.Speed;
        return (
            -script.Backswing + top * Area(t, rise) + swing / beats * (1 - Math.Cos(beats * t)),
            top * Shape(t, rise) + swing * Math.Sin(beats * t)
        );
    }
}
