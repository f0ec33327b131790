using System.Runtime.CompilerServices;
using System.Threading.Channels;

namespace DeepBaize.Web;

/// <summary>Work that takes seconds, as a stream of what it tells on the way. Closing the request cancels it.</summary>
internal static class LongWork
{
    public static async IAsyncEnumerable<T> Stream<T>(Func<Action<T>, Task> work, [EnumeratorCancellation] CancellationToken cancel)
    {
        var channel = Channel.CreateUnbounded<T>();
        var running = Task.Run(
            async () =>
            {
                try
                {
                    await work(told => channel.Writer.TryWrite(told));
                    channel.Writer.Complete();
                }
                catch (Exception e)
                {
                    channel.Writer.Complete(e);
                }
            },
            CancellationToken.None
        );
        await foreach (var told in channel.Reader.ReadAllAsync(cancel))
            yield return told;
        await running;
    }
}

/// <summary>Passes on what long work tells, on the thread that tells it.</summary>
internal sealed class Teller<T>(Action<T> tell) : IProgress<T>
{
    public void Report(T value) => tell(value);
}
