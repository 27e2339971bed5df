import { inject, provideEnvironmentInitializer } from '@angular/core';
import { MatIconRegistry } from '@angular/material/icon';
import { DomSanitizer } from '@angular/platform-browser';
import accountCircle from '@material-symbols/svg-400/outlined/account_circle.svg' with {
  loader: 'text',
};
import add from '@material-symbols/svg-400/outlined/add.svg' with { loader: 'text' };
import archive from '@material-symbols/svg-400/outlined/archive.svg' with { loader: 'text' };
import arrowDropDown from '@material-symbols/svg-400/outlined/arrow_drop_down.svg' with {
  loader: 'text',
};
import checkBox from '@material-symbols/svg-400/outlined/check_box.svg' with { loader: 'text' };
import checkBoxOutlineBlank from '@material-symbols/svg-400/outlined/check_box_outline_blank.svg' with {
  loader: 'text',
};
import checklist from '@material-symbols/svg-400/outlined/checklist.svg' with { loader: 'text' };
import close from '@material-symbols/svg-400/outlined/close.svg' with { loader: 'text' };
import compareArrows from '@material-symbols/svg-400/outlined/compare_arrows.svg' with {
  loader: 'text',
};
import contentCopy from '@material-symbols/svg-400/outlined/content_copy.svg' with {
  loader: 'text',
};
import deleteIcon from '@material-symbols/svg-400/outlined/delete.svg' with { loader: 'text' };
import download from '@material-symbols/svg-400/outlined/download.svg' with { loader: 'text' };
import editNote from '@material-symbols/svg-400/outlined/edit_note.svg' with { loader: 'text' };
import info from '@material-symbols/svg-400/outlined/info.svg' with { loader: 'text' };
import keyboard from '@material-symbols/svg-400/outlined/keyboard.svg' with { loader: 'text' };
import logout from '@material-symbols/svg-400/outlined/logout.svg' with { loader: 'text' };
import menu from '@material-symbols/svg-400/outlined/menu.svg' with { loader: 'text' };
import menuBook from '@material-symbols/svg-400/outlined/menu_book.svg' with { loader: 'text' };
import moreVert from '@material-symbols/svg-400/outlined/more_vert.svg' with { loader: 'text' };
import openInNew from '@material-symbols/svg-400/outlined/open_in_new.svg' with { loader: 'text' };
import password from '@material-symbols/svg-400/outlined/password.svg' with { loader: 'text' };
import print from '@material-symbols/svg-400/outlined/print.svg' with { loader: 'text' };
import radioButtonChecked from '@material-symbols/svg-400/outlined/radio_button_checked.svg' with {
  loader: 'text',
};
import radioButtonUnchecked from '@material-symbols/svg-400/outlined/radio_button_unchecked.svg' with {
  loader: 'text',
};
import search from '@material-symbols/svg-400/outlined/search.svg' with { loader: 'text' };
import share from '@material-symbols/svg-400/outlined/share.svg' with { loader: 'text' };
import troubleshoot from '@material-symbols/svg-400/outlined/troubleshoot.svg' with {
  loader: 'text',
};
import tune from '@material-symbols/svg-400/outlined/tune.svg' with { loader: 'text' };
import unarchive from '@material-symbols/svg-400/outlined/unarchive.svg' with { loader: 'text' };
import viewColumn from '@material-symbols/svg-400/outlined/view_column.svg' with { loader: 'text' };
import redo from '@material-symbols/svg-400/outlined/redo.svg' with { loader: 'text' };
import undo from '@material-symbols/svg-400/outlined/undo.svg' with { loader: 'text' };
import viewCompact from '@material-symbols/svg-400/outlined/view_compact.svg' with {
  loader: 'text',
};
import edit from '@material-symbols/svg-400/outlined/edit.svg' with { loader: 'text' };
import zoomIn from '@material-symbols/svg-400/outlined/zoom_in.svg' with {
  loader: 'text',
};
import zoomOut from '@material-symbols/svg-400/outlined/zoom_out.svg' with {
  loader: 'text',
};
import chevronLeft from '@material-symbols/svg-400/outlined/chevron_left.svg' with {
  loader: 'text',
};
import chevronRight from '@material-symbols/svg-400/outlined/chevron_right.svg' with {
  loader: 'text',
};

/** The icons of the interface, by their names in Material Symbols. Only these are part of the pages. */
const ICONS = {
  edit,
  view_compact: viewCompact,
  undo,
  redo,
  account_circle: accountCircle,
  add,
  archive,
  zoom_in: zoomIn,
  zoom_out: zoomOut,
  chevron_left: chevronLeft,
  chevron_right: chevronRight,
  arrow_drop_down: arrowDropDown,
  check_box: checkBox,
  check_box_outline_blank: checkBoxOutlineBlank,
  checklist,
  close,
  compare_arrows: compareArrows,
  content_copy: contentCopy,
  delete: deleteIcon,
  download,
  edit_note: editNote,
  info,
  keyboard,
  logout,
  menu,
  menu_book: menuBook,
  more_vert: moreVert,
  open_in_new: openInNew,
  password,
  print,
  radio_button_checked: radioButtonChecked,
  radio_button_unchecked: radioButtonUnchecked,
  search,
  share,
  troubleshoot,
  tune,
  unarchive,
  view_column: viewColumn,
};

export type IconName = keyof typeof ICONS;

/** Registers the icons for `<mat-icon svgIcon="name">`. */
export const provideIcons = () =>
  provideEnvironmentInitializer(() => {
    const registry = inject(MatIconRegistry);
    const sanitizer = inject(DomSanitizer);
    for (const [name, svg] of Object.entries(ICONS))
      registry.addSvgIconLiteral(name, sanitizer.bypassSecurityTrustHtml(svg));
  });
