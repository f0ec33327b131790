using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using System.Net;
using System.Net.Sockets;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using DeepBaize.Tests.Shared;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Interactions;
using OpenQA.Selenium.Support.UI;
using Xunit.v3;

namespace DeepBaize.Browser.Tests;

/// <summary>The application as ./start runs it, over a fresh database, and headless Chromium in front of it.</summary>
public class Desk : IAsyncLifetime
{
    private readonly TestDatabase _database = new();
    private readonly List<Browser> _browsers = [];
    private Process _application = null!;

    public string Address { get; private set; } = "";

    public static string Root
    {
        get
        {
            var folder = new DirectoryInfo(AppContext.BaseDirectory);
            while (!File.Exists(Path.Combine(folder.FullName, "DeepBaize.slnx")))
                folder = folder.Parent!;
            return folder.FullName;
        }
    }

    public async ValueTask InitializeAsync()
    {
        using (var listener = new TcpListener(IPAddress.Loopback, 0))
        {
            listener.Start();
            Address = $"http://127.0.0.1:{((IPEndPoint)listener.LocalEndpoint).Port}";
        }
        await StartServerAsync();
    }

    /// <summary>Starts the application where it was before, over the same database.</summary>
    public async Task StartServerAsync()
    {
        var web = Path.Combine(Root, "src", "DeepBaize.Web");
        Assert.True(File.Exists(Path.Combine(web, "wwwroot", "index.html")), "The page is not built: npm run build in web/, or ./test");
        var start = new ProcessStartInfo("dotnet") { UseShellExecute = false };
        foreach (var argument in (string[])[typeof(Program).Assembly.Location, "--urls", Address, "--contentRoot", web])
            start.ArgumentList.Add(argument);
        start.Environment["ConnectionStrings__DeepBaize"] = _database.Connection;
        start.Environment["ASPNETCORE_ENVIRONMENT"] = "Production";
        // Less work for each search.
        start.Environment["Searches__WorkShare"] = "0.2";
        _application = Process.Start(start)!;
        using var client = new HttpClient();
        for (var i = 0; ; i++)
        {
            Assert.False(_application.HasExited, "the application ended at once");
            try
            {
                if ((await client.GetAsync($"{Address}/health")).IsSuccessStatusCode)
                    break;
            }
            catch (HttpRequestException) when (i < 480) { }
            await Task.Delay(250);
        }
    }

    public async ValueTask DisposeAsync()
    {
        At.TryRemove(GetType(), out _);
        foreach (var browser in _browsers)
            browser.Quit();
        await KillServerAsync();
        await _database.DropAsync();
    }

    /// <summary>Ends the application as a pulled plug does.</summary>
    public async Task KillServerAsync()
    {
        _application.Kill(entireProcessTree: true);
        await _application.WaitForExitAsync();
    }

    public Task SetDatabaseAway(bool away) => _database.SetAway(away);

    /// <summary>Those at work, each of its own type.</summary>
    private static readonly ConcurrentDictionary<Type, Desk> At = [];

    /// <summary>A browser of its own, with nothing kept from another: one that a test before this has done with, or a new one.</summary>
    /// <param name="touch">By fingers, as on a phone or a tablet.</param>
    /// <param name="isNew">Somebody who has not seen the tour.</param>
    /// <param name="address">Of a server between; null: straight to the application.</param>
    /// <returns>A page that shows nothing yet.</returns>
    public Page Open(int width = 1280, int height = 800, bool touch = false, bool isNew = false, string? address = null)
    {
        At[GetType()] = this;
        var browser = _browsers.Find(b => b.IsFree);
        if (browser is null)
            _browsers.Add(browser = new());
        browser.Prepare(width, height, touch, isNew);
        return new(browser.Driver, address ?? Address);
    }

    /// <summary>After a test: its browsers are free for the next, emptied of what it has left there.</summary>
    /// <param name="kind">Of the desk.</param>
    internal static void TakeBack(Type kind)
    {
        if (At.TryGetValue(kind, out var desk))
            foreach (var browser in desk._browsers.FindAll(b => !b.IsFree && !b.Clear(desk.Address)))
            {
                browser.Quit();
                desk._browsers.Remove(browser);
            }
    }

    /// <summary>
    /// Headless Chromium without a window system, a third of the work of the whole browser. The driver gives each one a profile of its own.
    /// </summary>
    private sealed class Browser
    {
        private object? _tourSeen;

        public ChromeDriver Driver { get; }

        public bool IsFree { get; private set; }

        public Browser()
        {
            var options = new ChromeOptions { BinaryLocation = "/usr/lib/chromium/chromium-headless-shell" };
            options.AddArguments(
                "--no-sandbox",
                "--disable-gpu",
                "--no-first-run",
                "--disable-background-networking",
                "--disable-component-update",
                "--disable-sync",
                // One process for all that a browser shows: a new one for each page doubles the work of loading it.
                "--renderer-process-limit=1",
                "--disable-site-isolation-trials",
                "--disable-features=SpareRendererForSitePerProcess,IsolateOrigins,site-per-process",
                "--window-size=1280,800"
            );
            Driver = new(ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver"), options, TimeSpan.FromSeconds(60));
        }

        public void Prepare(int width, int height, bool touch, bool isNew)
        {
            IsFree = false;
            Driver.ExecuteCdpCommand(
                "Emulation.setDeviceMetricsOverride",
                new()
                {
                    ["width"] = width,
                    ["height"] = height,
                    ["deviceScaleFactor"] = 1,
                    ["mobile"] = touch,
                }
            );
            Driver.ExecuteCdpCommand("Emulation.setTouchEmulationEnabled", new() { ["enabled"] = touch, ["maxTouchPoints"] = 1 });
            if (!isNew)
                _tourSeen = (
                    (Dictionary<string, object?>)
                        Driver.ExecuteCdpCommand(
                            "Page.addScriptToEvaluateOnNewDocument",
                            new() { ["source"] = "try { localStorage.setItem('deep-baize-tour', 'true') } catch { }" }
                        )!
                )["identifier"];
        }

        /// <summary>Whether it can be used again.</summary>
        public bool Clear(string address)
        {
            try
            {
                // The page writes down what is not saved as it is left: only then is there all that is to be cleared.
                foreach (var window in Driver.WindowHandles.Skip(1))
                    Driver.SwitchTo().Window(window).Close();
                Driver.SwitchTo().Window(Driver.WindowHandles[0]);
                Driver.Navigate().GoToUrl("about:blank");
                Driver.Navigate().GoToUrl(address + "/health");
                Driver.ExecuteScript("localStorage.clear(); sessionStorage.clear()");
                Driver.Navigate().GoToUrl("about:blank");
                // What is kept for when there is no network, and who keeps it.
                Driver.ExecuteCdpCommand("Storage.clearDataForOrigin", new() { ["origin"] = address, ["storageTypes"] = "all" });
                if (_tourSeen is not null)
                    Driver.ExecuteCdpCommand("Page.removeScriptToEvaluateOnNewDocument", new() { ["identifier"] = _tourSeen });
                _tourSeen = null;
                // What was said there is the business of the test that has ended.
                _ = Driver.Manage().Logs.GetLog(LogType.Browser);
                return IsFree = true;
            }
            catch (WebDriverException)
            {
                return false;
            }
        }

        public void Quit() => Driver.Quit();
    }
}

/// <summary>The browsers of each test go back to the desk when it has ended.</summary>
[AttributeUsage(AttributeTargets.Class)]
public sealed class BrowsersGoBackAttribute : BeforeAfterTestAttribute
{
    public override void After(System.Reflection.MethodInfo methodUnderTest, IXunitTest test) =>
        Desk.TakeBack(methodUnderTest.ReflectedType!.GetConstructors()[0].GetParameters()[0].ParameterType);
}

/// <summary>Most of these tests wait most of the time: two desks side by side, each with its own server, database and browsers.</summary>
public sealed class SecondDesk : Desk;

[CollectionDefinition("desk")]
public sealed class DeskCollection : ICollectionFixture<Desk>;

[CollectionDefinition("second desk")]
public sealed class SecondDeskCollection : ICollectionFixture<SecondDesk>;

/// <summary>The page as a user handles it.</summary>
public sealed class Page(ChromeDriver driver, string address)
{
    /// <summary>Long, for a machine that is busy with something else: a test that passes does not wait for it.</summary>
    private static readonly TimeSpan Patience = TimeSpan.FromSeconds(45);

    public ChromeDriver Driver { get; } = driver;

    /// <summary>Whatever lies on the table, in the step Shot.</summary>
    public void Reload() => GoTo("/table/now/shot");

    /// <summary>Any place but the table.</summary>
    public void Visit(string path) => Driver.Navigate().GoToUrl(address + path);

    public void GoTo(string path)
    {
        Driver.Navigate().GoToUrl(address + path);
        Find("plan");
        Until(() => Driver.FindElements(By.CssSelector("[data-ball=white]")).Count == 1);
    }

    public string Path => new Uri(Driver.Url).PathAndQuery;

    /// <summary>What a screen reader would find: by its role, and the name it says.</summary>
    public IWebElement Role(string role, string name) => Role(role, n => n == name, name);

    public IWebElement Role(string role, Func<string, bool> isIt, string wanted)
    {
        var wait = Wait();
        wait.Message = $"no {role} named “{wanted}”";
        wait.IgnoreExceptionTypes(typeof(NoSuchElementException), typeof(StaleElementReferenceException));
        // What is chosen by a mark is pressed on its words.
        var isMark = role is "radio" or "checkbox";
        return wait.Until(d =>
        {
            // Displayed and the role cost a question each; most fail by their name.
            var found = d.FindElements(By.CssSelector(Selectors[role]))
                .OfType<WebElement>()
                .FirstOrDefault(e => isIt(e.ComputedAccessibleLabel) && (isMark || e.Displayed) && e.ComputedAccessibleRole == role);
            return isMark ? found?.FindElement(By.XPath("ancestor::label"))! : found!;
        });
    }

    private static readonly Dictionary<string, string> Selectors = new()
    {
        ["button"] = "button, [role=button]",
        ["link"] = "a",
        ["radio"] = "input[type=radio]",
        ["checkbox"] = "input[type=checkbox]",
        ["slider"] = "[role=slider]",
        ["textbox"] = "input:not([type]), input[type=text], textarea",
        ["searchbox"] = "input[type=search]",
        ["combobox"] = "[role=combobox]",
        ["application"] = "[role=application]",
    };

    /// <param name="patience">The usual one, if not said.</param>
    public WebDriverWait Wait(TimeSpan? patience = null) =>
        new(Driver, patience ?? Patience) { PollingInterval = TimeSpan.FromMilliseconds(100) };

    public IWebElement Find(string testId) => Css($"[data-testid='{testId}']");

    public IWebElement Css(string selector)
    {
        var wait = Wait();
        wait.IgnoreExceptionTypes(typeof(NoSuchElementException), typeof(StaleElementReferenceException));
        return wait.Until(d => d.FindElement(By.CssSelector(selector)) is { Displayed: true } e ? e : null!);
    }

    public void Until(Func<bool> condition)
    {
        var wait = Wait();
        wait.IgnoreExceptionTypes(typeof(NoSuchElementException), typeof(StaleElementReferenceException));
        wait.Until(_ => condition());
    }

    /// <summary>Clicks once it can be: what slides or fades in may be missed or covered at first.</summary>
    public void Click(Func<IWebElement> element)
    {
        var wait = Wait();
        wait.IgnoreExceptionTypes(
            typeof(NoSuchElementException),
            typeof(InvalidOperationException),
            typeof(StaleElementReferenceException),
            typeof(ElementClickInterceptedException),
            typeof(ElementNotInteractableException)
        );
        wait.Until(_ =>
        {
            element().Click();
            return true;
        });
    }

    /// <summary>Something from the menu "More".</summary>
    public void More(string item)
    {
        Find("more").Click();
        Click(() =>
            Driver
                .FindElements(By.CssSelector(".el-dropdown-menu__item"))
                .First(i => i.Displayed && i.Text.StartsWith(item, StringComparison.Ordinal))
        );
    }

    public bool HasNotice(string text) => Driver.FindElements(By.CssSelector("[data-testid=notice]")).Any(n => n.Text.Contains(text));

    public bool IsGone(string testId) => Driver.FindElements(By.CssSelector($"[data-testid='{testId}']")).Count == 0;

    public string Text(string testId) => Find(testId).Text;

    /// <summary>Waits until something says this: most words follow an answer of the server.</summary>
    public void Says(string testId, string text)
    {
        var (wait, said) = (Wait(), "");
        wait.IgnoreExceptionTypes(typeof(NoSuchElementException), typeof(StaleElementReferenceException));
        try
        {
            wait.Until(d => (said = d.FindElement(By.CssSelector($"[data-testid='{testId}']")).Text).Contains(text));
        }
        catch (WebDriverTimeoutException)
        {
            Assert.Fail($"{testId} does not say “{text}” but “{said}”");
        }
    }

    /// <summary>The white's path, before and after contact, as drawn.</summary>
    public string WhitePath =>
        Css("[data-testid=plan]")
            .FindElements(By.CssSelector("[data-testid^=white-]"))
            .Aggregate("", (all, e) => all + e.GetAttribute("d") + "|");

    /// <summary>Where a ball is drawn: mm of the drawing.</summary>
    public (double X, double Y) Ball(string id)
    {
        var text = Css($"[data-ball='{id}']").GetAttribute("transform")!;
        var parts = text[(text.IndexOf('(') + 1)..text.IndexOf(')')].Split(' ', ',');
        return (double.Parse(parts[0], CultureInfo.InvariantCulture), double.Parse(parts[1], CultureInfo.InvariantCulture));
    }

    /// <summary>Where a place on the table (m) is on the screen, px, however the plan is turned and looked at.</summary>
    public (int X, int Y) OnScreen(double x, double y)
    {
        var at =
            (IReadOnlyCollection<object>)
                Driver.ExecuteScript(
                    "const g = document.querySelector('.plan > g'); "
                        + "const p = new DOMPoint(arguments[0] * 1000, 1778 - arguments[1] * 1000).matrixTransform(g.getScreenCTM()); "
                        + "return [p.x, p.y]",
                    x,
                    y
                )!;
        var list = at.Select(Convert.ToDouble).ToList();
        return ((int)Math.Round(list[0]), (int)Math.Round(list[1]));
    }

    /// <summary>Presses a place on the plan with the mouse, or touches it.</summary>
    public void PressPlan(double x, double y, bool touch = false)
    {
        var at = OnScreen(x, y);
        if (touch)
        {
            Touch("touchStart", at.X, at.Y);
            Touch("touchEnd");
            return;
        }
        new Actions(Driver).MoveToLocation(at.X, at.Y).Click().Perform();
    }

    /// <summary>Drags with the mouse from one place on the plan over others, m.</summary>
    public void DragPlan(params (double X, double Y)[] places)
    {
        var actions = new Actions(Driver);
        for (var i = 0; i < places.Length; i++)
        {
            var at = OnScreen(places[i].X, places[i].Y);
            actions.MoveToLocation(at.X, at.Y);
            if (i == 0)
                actions.ClickAndHold();
        }
        actions.Release().Perform();
    }

    public void Drag(IWebElement from, int dx, int dy) =>
        new Actions(Driver)
            .MoveToElement(from)
            .ClickAndHold()
            .MoveByOffset(dx / 2, dy / 2)
            .MoveByOffset(dx - dx / 2, dy - dy / 2)
            .Release()
            .Perform();

    /// <summary>With a finger, once the element lies still and nothing covers it.</summary>
    public void Tap(Func<IWebElement> element) =>
        Until(() =>
        {
            var target = element();
            var (x, y) = Middle(target);
            if (!(bool)Driver.ExecuteAsyncScript(IsReadyForTap, target, x, y)!)
                return false;
            Touch("touchStart", x, y);
            Touch("touchEnd");
            return (bool)Driver.ExecuteAsyncScript(IsTapped)!;
        });

    private const string IsReadyForTap = """
        const [element, x, y, done] = arguments;
        requestAnimationFrame(() => requestAnimationFrame(() => {
          const box = element.getBoundingClientRect(), top = document.elementFromPoint(x, y);
          const isStill = Math.abs(box.x + box.width / 2 - x) < 1 && Math.abs(box.y + box.height / 2 - y) < 1;
          const tap = window.tapped = { said: null, tell: null };
          const end = (isTap) => { if (tap.said === null) { tap.said = isTap; tap.tell?.(isTap) } };
          // The page takes a touch for itself where it prevents what else would come of it.
          const touched = (e) => setTimeout(() => e.defaultPrevented && end(true));
          for (const kind of ['touchstart', 'touchend']) addEventListener(kind, touched, { capture: true, once: true });
          // What moves under the finger gets no tap: another element has it then.
          addEventListener('click', (e) => end(element.contains(e.target) || e.target.contains(element)), { capture: true, once: true });
          addEventListener('contextmenu', () => end(false), { capture: true, once: true });
          done(isStill && top !== null && (element.contains(top) || top.contains(element)));
        }));
        """;

    /// <summary>
    /// Whether the touch has become a tap. On a slow machine the finger may stay so long that it is a long press, or the browser may drop
    /// it.
    /// </summary>
    private const string IsTapped = """
        const done = arguments[0], tap = window.tapped;
        // A tap that has led to another page has gone with this one.
        if (!tap || tap.said !== null) done(tap?.said ?? true);
        else { tap.tell = done; setTimeout(() => { tap.tell = null; done(tap.said ?? false) }, 1000) }
        """;

    public void DragByTouch(IWebElement from, int dx, int dy)
    {
        var (x, y) = Middle(from);
        Touch("touchStart", x, y);
        for (var i = 1; i <= 6; i++)
            Touch("touchMove", x + dx * i / 6, y + dy * i / 6);
        Touch("touchEnd");
    }

    /// <summary>A finger that comes down, moves and stays.</summary>
    public void HoldByTouch((int X, int Y) from, (int X, int Y) to)
    {
        Touch("touchStart", from.X, from.Y);
        for (var i = 1; i <= 4; i++)
            Touch("touchMove", from.X + (to.X - from.X) * i / 4, from.Y + (to.Y - from.Y) * i / 4);
    }

    public void LetGo() => Touch("touchEnd");

    private (double X, double Y) Middle(IWebElement element)
    {
        var box =
            (IReadOnlyDictionary<string, object>)
                Driver.ExecuteScript(
                    "const e = arguments[0]; if (!e.closest('.plan')) e.scrollIntoView({ block: 'nearest' }); "
                        + "const b = e.getBoundingClientRect(); return { x: b.x + b.width / 2, y: b.y + b.height / 2 }",
                    element
                )!;
        return (Convert.ToDouble(box["x"]), Convert.ToDouble(box["y"]));
    }

    private void Touch(string kind, params double[] at) =>
        Driver.ExecuteCdpCommand(
            "Input.dispatchTouchEvent",
            new()
            {
                ["type"] = kind,
                ["touchPoints"] =
                    at.Length == 0
                        ? Array.Empty<object>()
                        : new object[]
                        {
                            new Dictionary<string, object> { ["x"] = at[0], ["y"] = at[1] },
                        },
            }
        );

    public void Keys(string keys) => new Actions(Driver).SendKeys(keys).Perform();

    /// <summary>One of a list that opens.</summary>
    public void Choose(string testId, string value)
    {
        // A list that moves while it opens may be missed: closed, it is opened again.
        Until(() =>
        {
            bool IsOpen() => Driver.FindElements(By.CssSelector(".el-select__popper")).Any(p => p.Displayed);
            Click(() => Find(testId));
            Click(() => Driver.FindElements(By.CssSelector($".el-select-dropdown__item[data-value='{value}']")).First(o => o.Displayed));
            for (var i = 0; i < 20 && IsOpen(); i++)
                Thread.Sleep(100);
            if (!IsOpen())
                return true;
            Keys(OpenQA.Selenium.Keys.Escape);
            return false;
        });
    }

    /// <summary>What of a slider takes the keys.</summary>
    public IWebElement Slider(string testId) => Css($"[data-testid='{testId}'] [role=slider]");

    /// <summary>Opens a saved position in the step Shot: by its address if nothing is shown yet, else through the library.</summary>
    public void OpenPosition(string name)
    {
        if (!Driver.Url.StartsWith(address, StringComparison.Ordinal))
        {
            GoTo($"/table/{IdOf(name)}/shot");
            Until(() => Text("position-name") == name);
            return;
        }
        Click(() => Find("positions"));
        Until(() =>
        {
            var search = Find("search");
            search.SendKeys(OpenQA.Selenium.Keys.Control + "a");
            search.SendKeys(name);
            return search.GetAttribute("value") == name;
        });
        Click(() =>
            Driver
                .FindElements(By.CssSelector("[data-testid=library] button.open"))
                .First(b => b.Displayed && b.FindElement(By.TagName("strong")).Text == name)
        );
        Until(() => Text("position-name") == name && Find("plan").Displayed);
    }

    /// <summary>Saves a position as another page would.</summary>
    /// <param name="balls">Elements of a JSON array.</param>
    /// <param name="frame">A JSON object.</param>
    public async Task Save(string name, string balls, string frame)
    {
        using var client = new HttpClient();
        var body = $$"""{ "name": "{{name}}", "content": { "balls": [{{balls}}], "stroke": { "pace": 3 }, "frame": {{frame}} } }""";
        using var content = new StringContent(body, System.Text.Encoding.UTF8, "application/json");
        using var answer = await client.PostAsync($"{address}/api/positions", content);
        Assert.True(answer.StatusCode == HttpStatusCode.Created, await answer.Content.ReadAsStringAsync());
    }

    private string IdOf(string name)
    {
        using var client = new HttpClient();
        using var answer = System.Text.Json.JsonDocument.Parse(
            client.GetStringAsync($"{address}/api/positions?search={Uri.EscapeDataString(name)}").Result
        );
        return answer.RootElement.EnumerateArray().First(p => p.GetProperty("name").GetString() == name).GetProperty("id").GetString()!;
    }

    public void TypeName(string name)
    {
        var input = Css(".el-message-box input");
        input.SendKeys(OpenQA.Selenium.Keys.Control + "a");
        input.SendKeys(name);
        Click(() => Driver.FindElement(By.CssSelector(".el-message-box .el-button--primary")));
        Until(() => Driver.FindElements(By.CssSelector(".el-message-box")).All(e => !e.Displayed));
    }
}
