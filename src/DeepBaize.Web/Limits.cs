namespace DeepBaize.Web;

/// <summary>What a request may not exceed.</summary>
public static class Limits
{
    /// <summary>
    /// Largest request, bytes, unless the endpoint has a limit of its own: 22 balls take 2 kB, a plan with its paths about 100.
    /// </summary>
    public const int BodyBytes = 256 * 1024;

    /// <summary>Largest file of attempts, bytes: a season of 20,000 attempts takes about 9 MB.</summary>
    public const int AttemptFileBytes = 32 * 1024 * 1024;

    /// <summary>Largest file of a camera, bytes: twenty-two balls for two minutes.</summary>
    public const int CameraFileBytes = 12 * 1024 * 1024;

    /// <summary>Largest file of a position or a frame, bytes.</summary>
    public const int RecordFileBytes = 2 * 1024 * 1024;

    /// <summary>Body kept in memory, bytes; a larger one is buffered on disk.</summary>
    public const int BufferedInMemory = 1024 * 1024;

    public const int ShotsOfPosition = 60;

    public const int PlansOfPosition = 20;
}
