namespace DeepBaize.Web;

/// <summary>What a request may not exceed.</summary>
public static class Limits
{
    /// <summary>Far more than any position: 22 balls are about 2 kB.</summary>
    public const int BodyBytes = 256 * 1024;

    public const int PositionsListed = 200;

    public const int ShotsOfPosition = 60;
}
