using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Core.Work;

namespace DeepBaize.Web.Searches;

/// <summary>
/// Makes one small plan when the application starts, so that the code is compiled before the first user asks. Not where searches are cut
/// short, in tests: there it would cost more than it saves.
/// </summary>
internal sealed class SearchWarmUp(SearchDesk desk) : BackgroundService
{
    protected override Task ExecuteAsync(CancellationToken stopping) =>
        desk.Gate.WorkShare < 1
            ? Task.CompletedTask
            : Background.Run(() =>
            {
                var shape = new TableShape(Conditions.Default);
                var colours = Layout.OfRest([new(Ball.White, 1.0, 0.75), .. Rack.Colours()]);
                try
                {
                    BreakPlanner.Solve(
                        Situation.Create(colours),
                        PlanPreferences.Default,
                        Player.Default,
                        shape,
                        desk.Gate,
                        cancel: stopping
                    );
                }
                catch (OperationCanceledException)
                {
                    // The application ends before it has quite begun.
                }
            });
}
