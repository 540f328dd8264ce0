/** Blocks that a text can have; what else stands in their place keeps its words. */
const kept = new Set(["P", "H2", "UL", "OL", "LI", "BR", "STRONG", "EM", "U", "A", "HR", "SPAN", "IMG"]);

/**
 * What was copied from a word processor or a web page, as a text can have it: its words, paragraphs, lists, emphasis, links and headings,
 * without fonts, sizes, colours, comments and marks of the program that it comes from. What was copied within here stays as it is.
 */
export function cleanPaste(html: string): string {
  if (html.includes("data-pm-slice")) {
    return html;
  }
  const page = new DOMParser().parseFromString(html.replace(/<!--[\s\S]*?-->|<\/?[a-z]+:[^>]*>/gi, ""), "text/html");
  page.querySelectorAll("style, script, meta, link, title, xml, del, svg, img").forEach((e) => e.remove());
  page
    .querySelectorAll<HTMLElement>("[style*='mso-list:Ignore'], [style*='mso-list: Ignore']")
    .forEach((e) => e.remove());
  gatherLists(page);
  for (const element of [...page.body.querySelectorAll<HTMLElement>("*")].reverse()) {
    clean(element, page);
  }
  // Lines of the source are no lines of the text.
  const words = page.createTreeWalker(page.body, NodeFilter.SHOW_TEXT);
  while (words.nextNode()) {
    words.currentNode.textContent = (words.currentNode.textContent ?? "").replace(/[ \t\r\n]+/g, " ");
  }
  page.body.querySelectorAll("p, h2, li").forEach((block) => {
    if (block.firstChild?.nodeType === Node.TEXT_NODE) {
      block.firstChild.textContent = (block.firstChild.textContent ?? "").trimStart();
    }
    if (!block.textContent.trim() && !block.querySelector("br, img")) {
      block.remove();
    }
  });
  return page.body.innerHTML.replace(/(<\/(?:p|h2|ul|ol)>) (?=<|$)/g, "$1").trim();
}

/** Paragraphs that a word processor sets as entries of a list become some. */
function gatherLists(page: Document) {
  for (const entry of page.querySelectorAll<HTMLElement>("p[class*='ListParagraph'], p[style*='mso-list']")) {
    const item = page.createElement("li");
    const isNumbered = /^\s*(\d+|[a-z])[.)]/i.test(entry.textContent);
    item.innerHTML = entry.innerHTML.replace(/^\s*(?:[·•§o▪–-]|\d+[.)]|[a-z][.)])(?:\s|&nbsp;)+/i, "");
    const before = entry.previousElementSibling;
    const name = isNumbered ? "OL" : "UL";
    if (before?.tagName === name && before.hasAttribute("data-gathered")) {
      before.append(item);
      entry.remove();
    } else {
      const list = page.createElement(name);
      list.setAttribute("data-gathered", "");
      list.append(item);
      entry.replaceWith(list);
    }
  }
}

function clean(element: HTMLElement, page: Document) {
  const style = element.getAttribute("style") ?? "";
  let content: Node[] = [...element.childNodes];
  const wrap = (name: string) => {
    const around = page.createElement(name);
    around.append(...content);
    content = [around];
  };
  const weight = /font-weight:\s*(bold|[6-9]00|normal|[1-5]00)/i.exec(style)?.[1];
  const isBold = weight ? !/normal|[1-5]00/.test(weight) : /^(B|STRONG)$/.test(element.tagName);
  const isItalic = /font-style:\s*italic/i.test(style) || /^(I|EM)$/.test(element.tagName);
  const isUnder = /text-decoration[^;]*underline/i.test(style) || element.tagName === "U";
  const isInline = /^(B|STRONG|I|EM|U|SPAN|FONT)$/.test(element.tagName);
  if (isInline) {
    if (isBold) wrap("strong");
    if (isItalic) wrap("em");
    if (isUnder && !element.closest("a")) wrap("u");
    element.replaceWith(...content);
    return;
  }
  if (/^H[1-6]$/.test(element.tagName)) {
    const heading = page.createElement("h2");
    heading.append(...content);
    element.replaceWith(heading);
    return;
  }
  const target = element.tagName === "A" ? (element.getAttribute("href") ?? "") : "";
  for (const { name } of [...element.attributes]) {
    element.removeAttribute(name);
  }
  if (/^(https?:|mailto:)/i.test(target)) {
    element.setAttribute("href", target);
  } else if (element.tagName === "A") {
    element.replaceWith(...content);
  } else if (!kept.has(element.tagName)) {
    replaceBlock(element, content, page);
  }
}

/** What is no block of ours: a row becomes a paragraph, its cells stand one after another; others give way to what is in them. */
function replaceBlock(element: HTMLElement, content: Node[], page: Document) {
  const holdsBlocks = content.some((n) => n instanceof HTMLElement && /^(P|H2|UL|OL|HR)$/.test(n.tagName));
  if (/^(TD|TH)$/.test(element.tagName)) {
    element.replaceWith(
      ...content.flatMap((n) => (n instanceof HTMLElement && n.tagName === "P" ? [...n.childNodes] : [n])),
      " ",
    );
  } else if (/^(TR|DIV|ADDRESS|PRE|BLOCKQUOTE|SECTION|ARTICLE|CENTER|DT|DD)$/.test(element.tagName) && !holdsBlocks) {
    const paragraph = page.createElement("p");
    paragraph.append(...content);
    element.replaceWith(paragraph);
  } else {
    element.replaceWith(...content);
  }
}
