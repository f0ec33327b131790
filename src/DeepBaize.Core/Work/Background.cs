using System.Runtime.InteropServices;

namespace DeepBaize.Core.Work;

/// <summary>Work that has time: its threads take a core only when nothing quicker wants it.</summary>
public static class Background
{
    private const int ThisThread = 0,
        OfOneThread = 0,
        Nice = 10;

    /// <summary>
    /// Lowers the calling thread for good, so only a thread of one's own may ask for it. Linux has a niceness for each thread
    /// (setpriority(2), "C library/kernel differences"), where .NET's own priorities do nothing; elsewhere nothing is done.
    /// </summary>
    public static void GiveWay()
    {
        if (OperatingSystem.IsLinux())
            _ = SetPriority(OfOneThread, ThisThread, Nice);
        else
            Thread.CurrentThread.Priority = ThreadPriority.BelowNormal;
    }

    /// <summary>Does the work on a thread of its own that gives way.</summary>
    public static Task Run(Action work) =>
        Task.Factory.StartNew(
            () =>
            {
                GiveWay();
                work();
            },
            CancellationToken.None,
            TaskCreationOptions.LongRunning,
            TaskScheduler.Default
        );

    [DllImport("libc", EntryPoint = "setpriority")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern int SetPriority(int which, uint who, int value);
}
