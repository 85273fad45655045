import { theme as antd, type ThemeConfig } from 'antd'

const font = "'Source Sans 3 Variable', system-ui, sans-serif"

const shared = {
  fontFamily: font,
  fontSize: 14,
  borderRadius: 3,
  colorPrimary: '#0F6B66',
  controlHeight: 30,
  wireframe: false,
}

/** The component library under our own tokens: paper by day, ink by night. */
export const light: ThemeConfig = {
  token: {
    ...shared,
    colorBgBase: '#FFFDF9',
    colorBgLayout: '#F7F4EE',
    colorTextBase: '#1E2530',
    colorBorder: '#CDBFA8',
    colorLink: '#0F6B66',
    colorError: '#A3341B',
    colorTextPlaceholder: '#6B6457',
  },
}

export const dark: ThemeConfig = {
  algorithm: antd.darkAlgorithm,
  token: {
    ...shared,
    colorPrimary: '#4FB3AB',
    colorBgBase: '#161C23',
    colorBgLayout: '#12171D',
    colorTextBase: '#ECE6DA',
    colorBgContainer: '#1A2129',
    colorBorder: '#4A5561',
    colorLink: '#6CC7BF',
    colorError: '#F08A6E',
    colorTextPlaceholder: '#A9A396',
  },
  components: {
    Button: { colorPrimary: '#12706A', colorPrimaryHover: '#178179', colorPrimaryActive: '#0F5F5A', algorithm: false },
  },
}
