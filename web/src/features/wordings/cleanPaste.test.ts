// @vitest-environment jsdom
import { expect, test } from "vitest";
import { cleanPaste } from "./cleanPaste";

test("text from a word processor keeps its words, paragraphs and emphasis alone", () => {
  const pasted = `<html xmlns:o="urn:x"><head><style>p.MsoNormal{font-family:Serif}</style><meta name="Generator"></head><body>
<!--StartFragment--><p class="MsoNormal" style="margin:0;mso-pagination:none">
<span lang="EN-GB" style="font-size:11.0pt;font-family:&quot;Serif&quot;">Please pay <b>the balance</b>
<i style="mso-bidi-font-style:normal">soon</i>.<o:p></o:p></span></p>
<p class="MsoNormal"><o:p>&nbsp;</o:p></p><!--EndFragment--></body></html>`;
  expect(cleanPaste(pasted)).toBe("<p>Please pay <strong>the balance</strong> <em>soon</em>.</p>");
});

test("entries of a list that are set as paragraphs become a list", () => {
  const pasted =
    '<p class="MsoListParagraphCxSpFirst"><span style="mso-list:Ignore">·<span>&nbsp;&nbsp; </span></span>Sheets</p>' +
    '<p style="mso-list:l0"><span style="mso-list:Ignore">·<span>&nbsp; </span></span>Towels</p><p>End</p>';
  expect(cleanPaste(pasted)).toBe("<ul><li>Sheets</li><li>Towels</li></ul><p>End</p>");
  expect(cleanPaste('<p class="MsoListParagraph">1.&nbsp; One</p><p class="MsoListParagraph">2.&nbsp; Two</p>')).toBe(
    "<ol><li>One</li><li>Two</li></ol>",
  );
});

test("a web page leaves no scripts, pictures, classes or addresses that fetch", () => {
  const pasted =
    '<div class="x"><h1 style="color:red">Terms</h1><div>Pay <a class="k" href="https://tarnbrook.example/t" onclick="x()">here</a>' +
    ' or <a href="javascript:x()">there</a><img src="https://t.example/1.gif"><script>x()</script></div></div>';
  expect(cleanPaste(pasted)).toBe('<h2>Terms</h2><p>Pay <a href="https://tarnbrook.example/t">here</a> or there</p>');
});

test("bold and italic that are written as styles stay, and a bold wrapper that says it is none does not", () => {
  const pasted =
    '<b style="font-weight:normal"><p><span style="font-weight:700;font-size:13pt">Bold</span> ' +
    '<span style="font-style:italic">it</span> plain</p></b>';
  expect(cleanPaste(pasted)).toBe("<p><strong>Bold</strong> <em>it</em> plain</p>");
});

test("a table becomes lines", () => {
  expect(
    cleanPaste("<table><tbody><tr><td>A</td><td><p>1</p></td></tr><tr><td>B</td><td>2</td></tr></tbody></table>"),
  ).toBe("<p>A 1 </p><p>B 2 </p>");
});

test("what was copied within the editor stays as it is", () => {
  const own =
    '<p data-pm-slice="1 1 []"><span data-slot="customer.name"></span> <span style="color: #5b2a55">x</span></p>';
  expect(cleanPaste(own)).toBe(own);
});
