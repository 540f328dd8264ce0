using Rendal.Core.Enclosures;

namespace Rendal.Core.Tests.Enclosures;

/// <summary>Which document a file is a copy of, by its name and its text.</summary>
public sealed class CopyRecognitionTests
{
    private static readonly DocumentNumbers Ledger = new([
        new("TL-10234", "HARB", "Harbour View Hotel"),
        new("TL-10240", "HARB", "Harbour View Hotel"),
        new("TL-10301", "INNS", "The Weighbridge Inn"),
        new("20417", "CLIN", "Saltmarsh Clinic"),
        new("20418", "FERR", "Skerry Ferries"),
    ]);

    [Theory]
    [InlineData("TL-10234", "TL 10234")]
    [InlineData("tl 10234", "TL 10234")]
    [InlineData("Invoice_TL10234_2026-10-31", "TL 10234")]
    [InlineData("2026-10-31 Harbour View TL–10234 (1)", "TL 10234")]
    public void A_number_in_a_name_is_found_however_it_is_written(string name, string number) =>
        Assert.Equal(number, new CopyRecognition(Ledger, null).Of(name, "").Number);

    [Fact]
    public void The_last_digits_alone_are_asked_about_until_the_names_of_all_files_speak_for_them()
    {
        var alone = new CopyRecognition(Ledger, null).Of("10234", "");
        Assert.Equal("", alone.Number);
        Assert.Equal(["TL 10234"], alone.Candidates);

        var pattern = NamePattern.Propose(["10234", "10240", "10301"], Ledger);
        Assert.Equal("{number}", pattern?.ToString());
        Assert.Equal("TL 10234", new CopyRecognition(Ledger, pattern).Of("10234", "").Number);
    }

    [Theory]
    [InlineData("Invoice 110234", "")]
    [InlineData("Invoice TL-102345", "")]
    [InlineData("terms of hire", "no copy of TL-10234 enclosed? ask us")]
    public void A_longer_number_is_another_one(string name, string text)
    {
        var found = new CopyRecognition(Ledger, null).Of(name, text.Replace("TL-10234", "TL-1023", StringComparison.Ordinal));
        Assert.Equal("", found.Number);
        Assert.Empty(found.Candidates);
    }

    [Fact]
    public void A_file_that_says_one_thing_in_its_name_and_another_in_its_text_is_asked_about()
    {
        var found = new CopyRecognition(Ledger, null).Of("TL-10234", "Invoice TL-10301\nThe Weighbridge Inn");
        Assert.Equal("", found.Number);
        Assert.Equal(["TL 10234", "TL 10301"], found.Candidates);
        Assert.Equal("its name says TL-10234, its text TL-10301", found.Reason);
    }

    [Fact]
    public void A_copy_of_an_invoice_that_was_settled_is_no_copy_of_the_one_that_it_mentions()
    {
        var found = new CopyRecognition(Ledger, null).Of("scan", "Invoice TL-09811\nin place of TL-10234");
        Assert.Equal("", found.Number);
        Assert.Equal(["TL 10234"], found.Candidates);
        Assert.Equal("TL 09811 is not in the ledger", new CopyRecognition(Ledger, null).Of("TL-09811", "").Reason);
    }

    [Fact]
    public void Digits_alone_are_sure_on_a_page_that_names_the_customer()
    {
        var recognition = new CopyRecognition(Ledger, null);
        Assert.Equal("20417", recognition.Of("scan 1", "SALTMARSH  CLINIC\n20417 October").Number);

        var elsewhere = recognition.Of("scan 2", "Skerry Ferries\n20417 Harbour Town");
        Assert.Equal("", elsewhere.Number);
        Assert.Equal(["20417"], elsewhere.Candidates);
    }

    [Fact]
    public void An_amount_is_no_number()
    {
        var found = new CopyRecognition(Ledger, null).Of("scan", "Saltmarsh Clinic\nTotal 20417.00\nPaid 20,418");
        Assert.Equal(Recognised.NoNumber, found.Reason);
    }

    [Fact]
    public void A_pattern_is_proposed_by_what_most_names_have_in_common_and_read_by_it()
    {
        var pattern = NamePattern.Propose(
            ["Tarnbrook 10234 Harbour", "Tarnbrook 10240 Harbour", "Tarnbrook 20417 Saltmarsh", "price list"],
            Ledger
        );
        Assert.Equal("Tarnbrook {number} *", pattern?.ToString());
        Assert.Equal("20417", new CopyRecognition(Ledger, pattern).Of("Tarnbrook 20417 20418", "").Number);
    }

    [Theory]
    [InlineData("Invoice *")]
    [InlineData("{number} or {number}")]
    public void A_pattern_needs_the_number_once(string text) => Assert.Null(NamePattern.Parse(text));

    [Fact]
    public void A_file_of_several_invoices_is_parted_by_their_numbers()
    {
        string[] pages =
        [
            "Invoice TL-10234\nHarbour View Hotel",
            "terms of hire",
            "Invoice TL-09811\nCobble Lane Bistro",
            "page 2",
            "Invoice TL-10301\nThe Weighbridge Inn",
        ];
        var parts = PagePart.Of(pages, new CopyRecognition(Ledger, null));
        Assert.Equal([(1, 2, "TL 10234"), (3, 4, ""), (5, 5, "TL 10301")], parts.Select(p => (p.From, p.To, p.Recognised.Number)));
    }

    [Fact]
    public void Where_numbers_are_digits_alone_a_later_page_that_may_be_anothers_is_asked_about()
    {
        var recognition = new CopyRecognition(Ledger, null);
        var part = Assert.Single(PagePart.Of(["Saltmarsh Clinic\n20417", "Cobble Lane Bistro\n19876"], recognition));
        Assert.True(part.IsUnclear);
        Assert.Equal(("", "page 2 may be of another document"), (part.Recognised.Number, part.Recognised.Reason));
        Assert.Equal(["20417"], part.Recognised.Candidates);

        // What stands on the first page too, as the firm's own postal code, says nothing.
        var sure = Assert.Single(PagePart.Of(["Saltmarsh Clinic\n20417\n30300 Harrow Dale", "terms\n30300 Harrow Dale"], recognition));
        Assert.Equal("20417", sure.Recognised.Number);
    }

    [Fact]
    public void Two_invoices_on_one_page_are_asked_about()
    {
        var parts = PagePart.Of(["TL-10234 and TL-10301 on one page", "Invoice TL-10240"], new CopyRecognition(Ledger, null));
        Assert.Equal(["TL 10234", "TL 10301"], parts[0].Recognised.Candidates);
        Assert.Equal("TL 10240", parts[1].Recognised.Number);
    }
}
