namespace DeepBaize.Web;

/// <summary>What a request may not exceed.</summary>
public static class Limits
{
    /// <summary>22 balls are about 2 kB, a plan with its paths and areas about 100.</summary>
    public const int BodyBytes = 256 * 1024;

    public const int ShotsOfPosition = 60;

    public const int PlansOfPosition = 20;
}
