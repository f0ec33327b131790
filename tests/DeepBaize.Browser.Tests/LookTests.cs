using System.Text.Json;
using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

/// <summary>What the page looks like: nothing sticks out, plan and desk are seen together, and axe finds nothing in any step.</summary>
[Collection("second desk")]
[BrowsersGoBack]
public class LookTests(SecondDesk desk)
{
    private static int[] Measured(Page page, string script) =>
        [.. ((IReadOnlyCollection<object>)page.Driver.ExecuteScript(script)!).Select(Convert.ToInt32)];

    [Theory]
    [InlineData(1280, 800, 0.60)]
    [InlineData(1024, 768, 0.60)]
    [InlineData(1920, 1080, 0.60)]
    public void Table_and_desk_are_seen_whole_without_scrolling_the_page(int width, int height, double share)
    {
        var page = desk.Open(width, height);
        page.OpenPosition("Stun across for the pink");
        page.Find("arrival");
        var sizes = Measured(
            page,
            "const d = document.querySelector('.desk'), page = document.documentElement; "
                + "return [page.scrollWidth - innerWidth, page.scrollHeight - innerHeight, d.scrollWidth - d.clientWidth]"
        );
        Assert.All(sizes, o => Assert.InRange(o, -2000, 1));
        Assert.True(page.Find("plan").Size.Width >= share * width - 24, $"the plan is {page.Find("plan").Size.Width} px wide");
        // The pace is changed in sight of the plan.
        Assert.InRange(page.Slider("pace").Location.Y, 0, height - 20);
    }

    [Fact]
    public void On_a_phone_the_plan_stays_above_what_is_changed()
    {
        var page = desk.Open(390, 844, touch: true);
        page.OpenPosition("Stun across for the pink");
        page.Find("arrival");
        page.Driver.ExecuteScript("document.querySelector('[data-testid=pace]').scrollIntoView({ block: 'center' })");
        var sizes = Measured(
            page,
            "const at = (s) => document.querySelector(s).getBoundingClientRect(), page = document.documentElement; "
                + "const [plan, pace] = [at('.plan'), at('[data-testid=pace]')]; "
                + "return [plan.top, plan.bottom, pace.top, pace.bottom, page.scrollWidth - innerWidth]"
        );
        Assert.True(sizes[0] >= 0 && sizes[1] <= sizes[2] && sizes[3] <= 844, string.Join(", ", sizes));
        Assert.InRange(sizes[4], -2000, 1);
    }

    /// <summary>
    /// Cumulative layout shift below 0.1 is good by the Web Vitals (Chrome's documentation, from memory): nothing jumps while it loads.
    /// </summary>
    [Theory]
    [InlineData("/practice", "routine-stop")]
    [InlineData("/library", "library")]
    [InlineData("/progress", "since")]
    [InlineData("/settings", "theme-dark")]
    [InlineData("/devices", "start-camera")]
    public void Nothing_jumps_while_a_place_loads(string path, string whole)
    {
        var page = desk.Open();
        page.Driver.ExecuteCdpCommand(
            "Page.addScriptToEvaluateOnNewDocument",
            new()
            {
                ["source"] =
                    "window.jumped = 0; new PerformanceObserver(l => l.getEntries().forEach(e => window.jumped += e.value))"
                    + ".observe({ type: 'layout-shift', buffered: true })",
            }
        );
        page.Visit(path);
        page.Find(whole);
        // What is asked for when it is there already has come by then.
        page.Until(() => (bool)page.Driver.ExecuteScript("return performance.now() > 1500")!);
        Assert.InRange(Convert.ToDouble(page.Driver.ExecuteScript("return window.jumped")), 0, 0.1);
    }

    [Fact]
    public void Nothing_in_any_step_or_place_fails_WCAG_AA_in_dark_or_light()
    {
        var page = desk.Open();
        page.OpenPosition("Mid-break, open reds");
        page.Find("arrival");
        page.Click(() => page.Find("keep-line"));
        page.Find("trial-row");
        page.Find("sight");
        Check(page, "shot, with a line");
        page.Click(() => page.Find("put-it-there"));
        page.Find("goal-stop");
        Check(page, "put it there");
        page.Click(() => page.Find("guess-view"));
        page.Find("guess-show");
        Check(page, "guess");
        page.Click(() => page.Find("keep"));
        page.Find("keep-shot");
        Check(page, "kept");
        page.Click(() => page.Find("what-is-on"));
        page.Css("[data-testid=read-list] tbody tr");
        Check(page, "read");
        page.Click(() => page.Find("plan-break"));
        page.Find("plan-detail");
        Check(page, "break");
        page.Click(() => page.Find("decide"));
        page.Find("decide-item");
        Check(page, "safety");
        page.Click(() => page.Find("positions"));
        page.Find("library");
        Check(page, "library");
        page.Click(() => page.Find("frames"));
        page.Find("frame-list");
        Check(page, "frames");
        page.Click(() => page.Driver.FindElement(By.CssSelector("[data-testid=frame-list] button")));
        page.Find("frame-on");
        Check(page, "a frame");
        page.Click(() => page.Find("practice"));
        page.Find("sessions");
        Check(page, "practice");
        page.Click(() => page.Find("routine-stop"));
        page.Until(() => page.Text("outlook").Contains('%'));
        Check(page, "a routine");
        page.Click(() => page.Find("play-routine"));
        page.Click(() => page.Find("not"));
        page.Find("last-attempt");
        Check(page, "a session");
        page.Click(() => page.Find("progress"));
        page.Click(() => page.Find("progress-long-pots"));
        page.Find("better");
        Check(page, "progress");
        page.Click(() => page.Find("all-routines"));
        page.Click(() => page.Find("to-player-page"));
        page.Find("page-break");
        Check(page, "a player's page");
        page.Visit("/players");
        page.Find("thing-name");
        Check(page, "players");
        page.Visit("/practice/learn");
        page.Click(() => page.Find("stand-in"));
        page.Find("learning-trial");
        Check(page, "a table that is learnt");
        page.Visit("/handbook");
        page.Find("handbook");
        Check(page, "the handbook");
        page.Visit("/photo");
        page.Find("photo-place");
        Check(page, "a photograph");
        page.Visit("/devices");
        page.Click(() => page.Find("cue-slowing"));
        page.Find("timing-verdict");
        Check(page, "devices");
        page.Click(() => page.Find("settings"));
        page.Find("theme-dark");
        Check(page, "settings");
    }

    private const string AllRules = "wcag2a wcag2aa wcag21a wcag21aa",
        ColourRules = "color-contrast";

    private static void Check(Page page, string where)
    {
        // The rules of structure hold in both themes or in neither: the second one is looked at for its colours only.
        foreach (var (theme, rules) in (ReadOnlySpan<(string, string)>)[("light", AllRules), ("dark", ColourRules)])
        {
            // As another window of the same browser would change it: the place stays as it is.
            page.Driver.ExecuteScript(
                """
                const [key, newValue] = ['vueuse-color-scheme', arguments[0]];
                localStorage.setItem(key, newValue);
                dispatchEvent(new StorageEvent('storage', { key, newValue, storageArea: localStorage }));
                """,
                theme
            );
            page.Until(() => page.Css("html").GetAttribute("class")!.Contains("dark") == (theme == "dark"));
            CheckAsItIs(page, $"{where}, {theme}", rules);
        }
    }

    /// <summary>By axe-core, the rules of WCAG 2.1 A and AA.</summary>
    private static void CheckAsItIs(Page page, string where, string rules)
    {
        // What fades in has its colours once no animation runs.
        const string isStill =
            "return document.getAnimations().every(a => a.playState !== 'running' || a.effect.getTiming().iterations > 9)";
        page.Until(() => (bool)page.Driver.ExecuteScript(isStill)!);
        if (!(bool)page.Driver.ExecuteScript("return 'axe' in window")!)
            page.Driver.ExecuteScript(File.ReadAllText(Path.Combine(Desk.Root, "web", "node_modules", "axe-core", "axe.min.js")));
        var result = (string)
            page.Driver.ExecuteAsyncScript(
                """
                const done = arguments[arguments.length - 1];
                axe.run(document, { runOnly: arguments[0], resultTypes: ['violations'] })
                  .then(r => done(JSON.stringify(r.violations.map(v =>
                    `${v.id}: ${v.nodes.slice(0, 4).map(n => n.target.join(' ') + ' ' + n.html.slice(0, 160)).join(', ')}`))));
                """,
                rules.Split(' ')
            )!;
        var found = JsonSerializer.Deserialize<string[]>(result)!;
        Assert.True(found.Length == 0, $"{where}: {string.Join("; ", found)}");
        // Nothing on the page needs what the Content-Security-Policy keeps out.
        var refused = page
            .Driver.Manage()
            .Logs.GetLog(LogType.Browser)
            .Select(l => l.Message)
            .Where(m => m.Contains("Content Security Policy"));
        Assert.True(!refused.Any(), $"{where}: {string.Join("; ", refused)}");
    }
}
