using DeepBaize.Core.Table;

namespace DeepBaize.Core.Camera;

/// <summary>A ball as a camera over the table saw it once.</summary>
/// <param name="Time">By the camera's own clock, s. Sightings of one picture have the same time.</param>
/// <param name="Ball">What it was taken for. No camera can tell one red from another: any red stands for all of them.</param>
/// <param name="At">Of its centre, m.</param>
/// <param name="Doubt">Standard deviation of each coordinate, m.</param>
public readonly record struct Sighting(double Time, Ball Ball, Vec2 At, double Doubt);

/// <summary>What a watch has had to put up with.</summary>
public sealed record WatchTally
{
    /// <summary>Pictures that were looked at.</summary>
    public int Pictures { get; init; }

    /// <summary>Pictures left out because there were more in a second than are looked at.</summary>
    public int LeftOut { get; init; }

    /// <summary>Sightings that came after later ones, and were left out.</summary>
    public int Late { get; init; }

    /// <summary>How often the camera's clock went back, and watching began anew.</summary>
    public int JumpsBack { get; init; }

    /// <summary>Sightings taken for another ball than the one that lies there.</summary>
    public int Mistaken { get; init; }

    /// <summary>How often nothing was seen for longer than <see cref="TableWatch.LongestGap"/>.</summary>
    public int Gaps { get; init; }

    /// <summary>Strokes that could not be told to their end, for nothing was seen or the table did not come to rest.</summary>
    public int Lost { get; init; }

    /// <summary>Strokes that came a second time, and were told once.</summary>
    public int Repeated { get; init; }

    /// <summary>How often balls were moved without a stroke: by hand.</summary>
    public int Hands { get; init; }
}

/// <summary>What the table is doing.</summary>
public enum WatchState
{
    /// <summary>No ball has been seen yet.</summary>
    Empty,

    /// <summary>Balls are being moved, or have not lain still for long enough.</summary>
    Settling,

    /// <summary>Everything lies still: a stroke may begin.</summary>
    Still,

    /// <summary>A stroke is under way.</summary>
    Moving,
}
